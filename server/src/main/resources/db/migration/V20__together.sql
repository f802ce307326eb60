-- Designers who work on a project with its owner, and what each change touched: who has not seen it yet is told where two
-- change the same thing.
create table project_member (
    project_id uuid not null references project on delete cascade,
    account_id uuid not null references account on delete cascade,
    primary key (project_id, account_id)
);
create index project_member_account on project_member (account_id);

create view project_team as
    select id as project_id, owner as account_id from project
    union
    select project_id, account_id from project_member;

create table touched (
    project_id uuid   not null references project on delete cascade,
    version    bigint not null,
    account_id uuid   not null references account on delete cascade,
    label      text   not null,
    things     text[] not null,
    primary key (project_id, version)
);
