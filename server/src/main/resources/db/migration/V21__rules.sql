-- Rules that say what parts get by what is known of them: kept by an account, run on any project.
create table rule_list (
    id         uuid  primary key,
    account_id uuid  not null references account on delete cascade,
    name       text  not null,
    rules      jsonb not null,
    unique (account_id, name)
);
