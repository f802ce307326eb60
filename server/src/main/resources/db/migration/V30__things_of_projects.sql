-- Pages give views and notes their ids, so an id says nothing outside its project: whoever repeats another project's changes
-- only their own.
alter table view_picture drop constraint view_picture_pkey, add primary key (project_id, view_id);
alter table saved_view drop constraint saved_view_pkey, add primary key (project_id, id);
alter table note drop constraint note_pkey, add primary key (project_id, id);
drop index saved_view_project_id_idx;
drop index note_project_id_idx;
