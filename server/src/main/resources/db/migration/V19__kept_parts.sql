-- Parts that keep what they show whatever is given around them, and parts that one looks into from outside.
alter table part add column locked boolean not null default false;
alter table part add column looked_into boolean not null default false;
