-- The models of a project: the one that it was made of, number 0, and those that were added to it, each with a group of its
-- own around all it holds.
create table placed_model (
    project_id uuid               not null references project on delete cascade,
    idx        int                not null,
    name       text               not null,
    file_name  text               not null,
    belonging  text               not null check (belonging in ('DESIGN', 'SURROUNDINGS')),
    form       text,
    group_idx  int                not null,
    hidden     boolean            not null default false,
    locked     boolean            not null default false,
    foot       double precision[] not null,
    at         double precision[] not null,
    degrees    double precision[] not null,
    scale      double precision   not null,
    faces      int                not null default 0,
    job        uuid,
    primary key (project_id, idx)
);
insert into placed_model (project_id, idx, name, file_name, belonging, group_idx, foot, at, degrees, scale)
select project_id, 0, file_name, file_name, 'DESIGN', -1, '{0,0,0}', '{0,0,0}', '{0,0,0}', 1 from model;

-- Eased edges are drawn on a mesh of their own: how wide they are, in metres, and the mesh that they were drawn on.
alter table part add column eased double precision not null default 0;
alter table part add column plain_mesh text;
