-- Parts move between matching sets. Sets says where each span is now, homes where it came from, and arrived_sets which
-- spans the part arrived with, whatever it has been split into since.
alter table part add column homes integer[];
alter table part add column arrived_sets integer[];
update part set homes = sets, arrived_sets = sets;
alter table part alter column homes set not null;
alter table part alter column arrived_sets set not null;

-- Parts are moved and mended by hand; what came with the file tells whether a newer file brings anything else.
alter table part add column arrived_local double precision[];
alter table part add column arrived_mesh text;
update part set arrived_local = local, arrived_mesh = mesh;
alter table part alter column arrived_local set not null;
alter table part alter column arrived_mesh set not null;

-- A newer file of a project's model that waits for the designer's word; the proposal is an asset of the project.
create table model_update (
    project_id uuid primary key references project (id) on delete cascade,
    file_name  text not null,
    proposal   text not null
);

-- What source materials become, kept by a designer for the next import; rows as JSON.
create table dressing_table (
    id         uuid primary key,
    account_id uuid  not null references account on delete cascade,
    name       text  not null,
    rows       jsonb not null,
    unique (account_id, name)
);

-- Images that were cleaned away are kept for the way back, but shown nowhere.
alter table project_asset add column removed boolean not null default false;
