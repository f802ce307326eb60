-- How a project's model is lit: named set-ups, the first of them in view until another is chosen. Units tells what their numbers
-- mean: 1 is relative to surroundings as their pictures were normalised.
create table light_setup (
    project_id   uuid             not null references project on delete cascade,
    id           uuid             not null,
    name         text             not null,
    units        int              not null,
    surroundings text             not null,
    strength     double precision not null,
    turn         double precision not null,
    stops        double precision not null,
    position     int              not null,
    primary key (project_id, id)
);
insert into light_setup (project_id, id, name, units, surroundings, strength, turn, stops, position)
select id, gen_random_uuid(), 'Light', 1, 'studio', 1, 0, 0, 0 from project;
