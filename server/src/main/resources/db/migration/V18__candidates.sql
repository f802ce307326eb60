-- Looks that are kept on a target to choose from, whichever of them shows.
create table candidate (
    project_id  uuid not null references project on delete cascade,
    level       text not null check (level in ('MODEL', 'SET', 'GROUP', 'PART', 'FACE')),
    target      int  not null,
    material_id uuid not null references material,
    position    int  not null,
    primary key (project_id, level, target, material_id)
);
create index candidate_material on candidate (material_id);
