-- A variation follows the material it was made from in everything but the parameters that are its own, named in a list.
alter table material add column parent uuid references material on delete set null;
alter table material add column own text;
create index material_parent on material (parent) where parent is not null;

-- Named colours of an account, for all its projects.
create table palette (
    id         uuid primary key,
    account_id uuid  not null references account on delete cascade,
    name       text  not null,
    swatches   jsonb not null
);
create index palette_account on palette (account_id);
