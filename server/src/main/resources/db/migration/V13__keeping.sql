-- Libraries besides the one that ships: one of each account's own, and those of teams, with drawers in one another. A library
-- counts its changes, so that what is kept of it in memory is known to be old.
create table library (
    id         uuid primary key,
    owner      uuid unique references account on delete cascade, -- null for a team's
    name       text        not null,
    revision   bigint      not null default 0,
    created_at timestamptz not null default now()
);

create table library_member (
    library_id uuid not null references library on delete cascade,
    account_id uuid not null references account on delete cascade,
    role       text not null check (role in ('USE', 'EDIT', 'APPROVE')),
    primary key (library_id, account_id)
);
create index library_member_account on library_member (account_id);

create table drawer (
    id         uuid primary key,
    library_id uuid not null references library on delete cascade,
    parent     uuid references drawer on delete cascade,
    name       text not null,
    position   int  not null
);
create index drawer_library on drawer (library_id);

-- A library's materials have no project. What a project's material was kept as is known apart from where it came from.
alter table material
    add column library_id uuid references library on delete cascade,
    add column drawer_id  uuid references drawer on delete set null,
    add column approved   boolean not null default true,
    add column kept_by    uuid references account on delete set null,
    add column kept_as    uuid references material on delete set null,
    add constraint material_of_one check (project_id is null or library_id is null);
create index material_of_library on material (library_id) where library_id is not null;
create index material_kept_as on material (kept_as) where kept_as is not null;
drop index material_library_code;
create unique index material_library_code on material (code) where project_id is null and library_id is null;
create unique index material_item_code on material (library_id, lower(code)) where library_id is not null and code <> '';
alter table material drop constraint material_origin_fkey;
alter table material
    add constraint material_origin_fkey foreign key (origin) references material on delete set null;

-- Pictures and words of what ships are everybody's, those of a library its members'.
alter table library_asset drop constraint library_asset_pkey;
alter table library_asset add column library_id uuid references library on delete cascade;
create unique index library_asset_once
    on library_asset (sha256, coalesce(library_id, '00000000-0000-0000-0000-000000000000'));
alter table library_word drop constraint library_word_pkey;
alter table library_word add column library_id uuid references library on delete cascade;
create unique index library_word_once
    on library_word (word, coalesce(library_id, '00000000-0000-0000-0000-000000000000'));

-- Materials that are used together, for the next project; one of them may be what every new project begins with.
create table kit (
    id         uuid primary key,
    library_id uuid not null references library on delete cascade,
    name       text not null,
    unique (library_id, name)
);
create table kit_material (
    kit_id      uuid not null references kit on delete cascade,
    material_id uuid not null references material on delete cascade,
    position    int  not null,
    primary key (kit_id, material_id)
);
create index kit_material_material on kit_material (material_id);
create table starter_kit (
    account_id uuid primary key references account on delete cascade,
    kit_id     uuid not null references kit on delete cascade
);

-- A project goes together with its materials and all that shows them, in whatever order.
alter table entry alter constraint entry_material_id_fkey deferrable initially deferred;
