-- The files that models that were added came in, and what those refer to that did not come along.
alter table placed_model
    add column original char(64) references asset (sha256),
    add column up_axis  text,
    add column lacking  text[] not null default '{}',
    add column sources  uuid[] not null default '{}';
