-- What designers left open about a thing of a project, for whoever goes on; settled ones stay to be read.
create table note (
    id         uuid primary key,
    project_id uuid        not null references project on delete cascade,
    level      text        not null check (level in ('MODEL', 'SET', 'GROUP', 'PART', 'FACE')),
    target     int         not null,
    text       text        not null,
    settled    boolean     not null,
    by         text        not null,
    at         timestamptz not null
);
create index on note (project_id);
