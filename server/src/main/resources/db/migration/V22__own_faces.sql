-- Faces that designers cut into parts, by a number that is not used again. Own_faces says for each span of a part which it is
-- in, −1 for none; an empty array stands for none at all.
create table own_face (
    project_id uuid not null references model on delete cascade,
    idx        int  not null,
    name       text not null,
    primary key (project_id, idx)
);
alter table part add column own_faces integer[] not null default '{}';
