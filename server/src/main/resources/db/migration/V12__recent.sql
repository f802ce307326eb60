-- Which of the library's materials a designer put on something, and when last.
create table recent_material (
    account_id  uuid        not null references account on delete cascade,
    material_id uuid        not null references material on delete cascade,
    used_at     timestamptz not null default clock_timestamp(),
    primary key (account_id, material_id)
);
