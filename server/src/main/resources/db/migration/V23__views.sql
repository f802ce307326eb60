-- Named views of a project's model. Looked_into says through which parts one sees in them besides those that are looked into
-- anyway. Their pictures stay when a view goes, so that it can come back with its own.
create table saved_view (
    id          uuid primary key,
    project_id  uuid               not null references project on delete cascade,
    name        text               not null,
    eye         double precision[] not null,
    target      double precision[] not null,
    degrees     double precision   not null,
    looked_into integer[]          not null,
    enclosed    boolean            not null,
    position    int                not null
);
create index on saved_view (project_id);
create table view_picture (
    view_id    uuid primary key,
    project_id uuid  not null references project on delete cascade,
    jpeg       bytea not null
);
