-- Accounts, content-addressed assets, projects with one model each, materials, schemes, commands, jobs.

create table account (
    id            uuid primary key,
    login         text        not null unique,
    display_name  text        not null,
    password_hash text        not null,
    failed_count  int         not null default 0,
    locked_until  timestamptz,
    created_at    timestamptz not null default now()
);

-- Immutable bytes, addressed by SHA-256, stored in chunks of 1 MiB. sha256 is null while an upload is under way.
create table asset (
    id         bigint generated always as identity primary key,
    sha256     char(64) unique,
    size       bigint      not null default 0,
    media_type text        not null,
    created_at timestamptz not null default now()
);

create table asset_chunk (
    asset_id bigint not null references asset on delete cascade,
    seq      int    not null,
    bytes    bytea  not null,
    primary key (asset_id, seq)
);
alter table asset_chunk alter column bytes set storage external;

create table project (
    id         uuid primary key,
    owner      uuid        not null references account on delete cascade,
    name       text        not null,
    client     text        not null default '',
    unit       text        not null default 'mm',
    version    bigint      not null default 1,
    created_at timestamptz not null default now(),
    touched_at timestamptz not null default now()
);
create index project_owner on project (owner);

-- A small picture of the stage as it was left, for the list of projects.
create table project_thumbnail (
    project_id uuid primary key references project on delete cascade,
    jpeg       bytea not null
);

create table project_asset (
    project_id uuid     not null references project on delete cascade,
    sha256     char(64) not null references asset (sha256),
    primary key (project_id, sha256)
);
create index project_asset_sha256 on project_asset (sha256);

create table library_asset (
    sha256 char(64) primary key references asset (sha256)
);

-- The imported model: immutable once written.
create table model (
    project_id      uuid primary key references project on delete cascade,
    file_name       text               not null,
    original_sha256 char(64)           not null references asset (sha256),
    bounds          double precision[] not null,
    triangles       int                not null,
    faces           int                not null,
    notes           text[]             not null
);

create table model_group (
    project_id uuid               not null references model on delete cascade,
    idx        int                not null,
    parent     int                not null,
    name       text               not null,
    local      double precision[] not null,
    primary key (project_id, idx)
);

-- A material of the library (project_id null) or of a project. Arrived materials are what the file brought; a project's
-- own point to the library material or arrived material they were made from.
create table material (
    id         uuid primary key,
    project_id uuid references project on delete cascade,
    origin     uuid references material,
    arrived    boolean not null default false,
    code       text    not null,
    name       text    not null,
    kind       text,
    surface    jsonb   not null,
    position   int     not null default 0
);
create index material_project on material (project_id);
create unique index material_library_code on material (code) where project_id is null;

create table matching_set (
    project_id uuid not null references model on delete cascade,
    idx        int  not null,
    name       text not null,
    source     uuid references material,
    primary key (project_id, idx)
);

create table part (
    project_id     uuid               not null references model on delete cascade,
    idx            int                not null,
    group_idx      int                not null,
    name           text               not null,
    world          double precision[] not null,
    local          double precision[] not null,
    mesh           char(64)           not null references asset (sha256),
    triangles      int                not null,
    size           double precision[] not null,
    area           double precision   not null,
    volume         double precision   not null,
    closed         boolean            not null,
    mean_thickness double precision   not null,
    sets           int[]              not null,
    primary key (project_id, idx)
);

create table scheme (
    id         uuid primary key,
    project_id uuid not null references project on delete cascade,
    base       uuid references scheme,
    name       text not null,
    position   int  not null default 0
);
create index scheme_project on scheme (project_id);

create table entry (
    scheme_id   uuid    not null references scheme on delete cascade,
    level       text    not null check (level in ('MODEL', 'SET', 'GROUP', 'PART', 'FACE')),
    target      int     not null,
    side        text    not null check (side in ('FRONT', 'BACK', 'BOTH')),
    material_id uuid references material,
    mapping     text check (mapping in ('MODEL_UVS', 'BOX')),
    on_top      boolean not null default false,
    primary key (scheme_id, level, target, side)
);
create index entry_material on entry (material_id);

-- What designers did, each with its inverse: every change holds the state before and after.
create table command (
    id         bigint generated always as identity primary key,
    project_id uuid        not null references project on delete cascade,
    account_id uuid        not null references account on delete cascade,
    label      text        not null,
    changes    jsonb       not null,
    undone     boolean     not null default false,
    created_at timestamptz not null default now()
);
create index command_project on command (project_id, account_id, id);

create table job (
    id         uuid primary key,
    account_id uuid             not null references account on delete cascade,
    kind       text             not null,
    title      text             not null,
    state      text             not null check (state in ('QUEUED', 'RUNNING', 'DONE', 'FAILED', 'CANCELLED')),
    share      double precision not null default 0,
    step       text             not null default '',
    problem    text,
    asset      char(64),
    result     uuid,
    cancel     boolean          not null default false,
    created_at timestamptz      not null default now(),
    started_at timestamptz
);
create index job_account on job (account_id, created_at);

-- db-scheduler's own table, as its documentation gives it, with priorities
create table scheduled_tasks (
    task_name            text                     not null,
    task_instance        text                     not null,
    task_data            bytea,
    execution_time       timestamp with time zone not null,
    picked               boolean                  not null,
    picked_by            text,
    last_success         timestamp with time zone,
    last_failure         timestamp with time zone,
    consecutive_failures int,
    last_heartbeat       timestamp with time zone,
    version              bigint                   not null,
    priority             smallint,
    primary key (task_name, task_instance)
);
create index execution_time_idx on scheduled_tasks (execution_time);
create index last_heartbeat_idx on scheduled_tasks (last_heartbeat);
create index priority_execution_time_idx on scheduled_tasks (priority desc, execution_time asc);

-- Demo projects that were made once; not made again after the designer deletes them.
create table demo_loaded (
    project_id uuid primary key
);

-- Facts about this installation, such as which edition of the shipped library it holds.
create table installation (
    name  text primary key,
    value text not null
);
