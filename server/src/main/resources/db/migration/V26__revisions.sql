-- A model's revision never stands for two contents, in whatever process it was read and whatever was rolled back: all
-- come from one sequence. And a picture's size in pixels is kept beside it, so that nobody reads its bytes to learn it.

create sequence model_revision;
select setval('model_revision', (select coalesce(max(greatest(revision, looked_at)), 0) + 1 from model));

-- width and height: null before the picture was looked at, 0 where the bytes are no picture
alter table asset add column width int;
alter table asset add column height int;
