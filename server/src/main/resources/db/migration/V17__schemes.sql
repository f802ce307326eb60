-- Schemes have a letter on their divider, a name, words about them, and how far they have got.
alter table scheme
    add column letter      text not null default 'A',
    add column description text not null default '',
    add column state       text not null default 'IDEA' check (state in ('IDEA', 'READY', 'APPROVED', 'REJECTED')),
    add column reason      text not null default '';
update scheme set name = 'First looks' where name = 'A';
alter table scheme alter column letter drop default;
-- Going back may bring a letter back before another scheme has given it up.
alter table scheme add constraint scheme_letter unique (project_id, letter) deferrable initially deferred;

-- A moment of a project's history that somebody wants to find again.
alter table command add column name text;
