-- Jobs that can carry a long picture: what exactly is wanted, how urgent it is, what was kept of an earlier run, and files that
-- came of it. A paused job waits for its account. Finished ones stay until they are dismissed.
alter table job
    add column priority   int     not null default 0,
    add column parameters jsonb,
    add column kept       char(64),
    add column pause      boolean not null default false,
    add column dismissed  boolean not null default false;
alter table job drop constraint job_state_check;
alter table job add constraint job_state_check
    check (state in ('QUEUED', 'RUNNING', 'PAUSED', 'ASKING', 'DONE', 'FAILED', 'CANCELLED'));
update job set dismissed = true where state in ('DONE', 'FAILED', 'CANCELLED');
create table job_result (
    job_id     uuid   not null references job on delete cascade,
    number     int    not null,
    name       text   not null,
    media_type text   not null,
    asset      char(64) not null,
    bytes      bigint not null,
    primary key (job_id, number)
);
