-- A job's run is a fencing number: only the run that was started last may tell how far it is and how it ended. Attempts
-- count its starts since it was asked for or answered; a job that keeps taking its process down is given up.
alter table job add column run bigint not null default 0;
alter table job add column attempts int not null default 0;

-- Whatever a project's rows refer to belongs to the project: an upload that was forgotten when surfaces were cut again
-- kept every later clean-up from ending.
insert into project_asset (project_id, sha256, removed)
select project_id, original, false from placed_model where original is not null
union select project_id, original_sha256, false from model
union select project_id, mesh, false from part
on conflict do nothing;
