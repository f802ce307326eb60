-- Finding materials of the library: their words, what is measured of them, and every word there is so that misspelt ones are
-- recognised.
create extension if not exists pg_trgm;
create extension if not exists fuzzystrmatch;

alter table material add column words tsvector;
alter table material add column measure jsonb;
create index material_words on material using gin (words);

-- What refers to a material is looked up when one goes.
create index material_origin on material (origin);

create table library_word (word text primary key);
create index library_word_near on library_word using gin (word gin_trgm_ops);

-- Installed anew, so that what is there gets its words.
delete from installation where name = 'library';
