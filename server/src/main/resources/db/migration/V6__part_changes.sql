-- Designers rename parts and mend their shapes. The revision counts the changes of a model; looked_at says which of them
-- what was found in it is about.
alter table model add column revision bigint not null default 0;
alter table model add column looked_at bigint not null default 0;

-- Surfaces that are cut anew are known by the names they arrived with.
alter table part add column arrived_name text;
update part set arrived_name = name;
alter table part alter column arrived_name set not null;

-- What a part is in the design, once a designer has said or confirmed it.
alter table part add column role text;
