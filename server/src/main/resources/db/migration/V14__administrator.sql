-- Whoever set Zolvan up makes accounts for others.
alter table account add column administrator boolean not null default false;
update account set administrator = true where id = (select id from account order by created_at, id limit 1);
