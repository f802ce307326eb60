-- Accounts can be shut and opened, given another password and more than one administrator; what happens to them is
-- kept; sessions are rows, so that they outlive a process, are the same in every process, and can be ended.

alter table account
    add column disabled_at  timestamptz,
    add column password_due boolean not null default false,
    add column seen_at      timestamptz,
    drop column failed_count,
    drop column locked_until;

-- Wrong passwords, by where they came from and whose account they were for; there need be no such account.
create table failed_sign_in (
    address text        not null,
    login   text        not null,
    count   int         not null,
    at      timestamptz not null,
    primary key (address, login)
);
create index failed_sign_in_at on failed_sign_in (at);

-- What was done to accounts and by them; kept when the account is gone.
create table audit (
    id      bigint generated always as identity primary key,
    at      timestamptz not null default now(),
    login   text        not null,
    what    text        not null,
    about   text        not null default '',
    address text        not null default ''
);

-- Letters that would be sent by mail; whoever looks after accounts passes them on.
create table letter (
    id      bigint generated always as identity primary key,
    at      timestamptz not null default now(),
    account uuid        not null references account on delete cascade,
    subject text        not null,
    text    text        not null
);

-- A word that lets somebody choose a new password, kept as its SHA-256.
create table password_reset (
    word    char(64) primary key,
    account uuid        not null references account on delete cascade,
    until   timestamptz not null
);

create table spring_session (
    primary_id            char(36)     not null primary key,
    session_id            char(36)     not null unique,
    creation_time         bigint       not null,
    last_access_time      bigint       not null,
    max_inactive_interval int          not null,
    expiry_time           bigint       not null,
    principal_name        varchar(100)
);
create index spring_session_expiry on spring_session (expiry_time);
create index spring_session_principal on spring_session (principal_name);

create table spring_session_attributes (
    session_primary_id char(36)     not null references spring_session on delete cascade,
    attribute_name     varchar(200) not null,
    attribute_bytes    bytea        not null,
    primary key (session_primary_id, attribute_name)
);
