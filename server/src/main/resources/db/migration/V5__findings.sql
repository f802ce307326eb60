-- What deserves a look in an imported model, as JSON; null where nobody has looked yet.
alter table model add column findings text;
