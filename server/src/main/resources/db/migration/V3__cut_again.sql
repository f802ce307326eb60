-- How finely round surfaces were cut into triangles; null where nothing was cut.
alter table model
    add column cut_kind    text,
    add column cut_linear  double precision,
    add column cut_angular double precision;

-- What a job works on besides its bytes, such as the project that gets new triangles.
alter table job add column subject uuid references project on delete cascade;
