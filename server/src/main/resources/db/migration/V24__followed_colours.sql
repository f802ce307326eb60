-- A material's colour may follow that of another of the project's, as a shade of it.
alter table material add column colour_of uuid references material on delete set null;
alter table material add column shade double precision check (shade between -1 and 1);
create index material_colour_of on material (colour_of) where colour_of is not null;
