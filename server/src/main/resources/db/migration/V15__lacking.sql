-- What a model's file refers to and what did not come along.
alter table model add column lacking text[] not null default '{}';
