-- The key under which a client sent a command, so that the same command sent again is not done twice.
alter table touched add column key uuid;
create index touched_key on touched (project_id, key) where key is not null;
