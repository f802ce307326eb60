-- What a file said of itself, or what the designer said for it, and how that was decided.
alter table model
    add column format     text not null default 'glTF',
    add column file_unit  text not null default 'm',
    add column unit_from  text not null default 'glTF is always in metres.',
    add column up_axis    text not null default 'Y',
    add column up_from    text not null default 'glTF always has Y up.',
    add column variants   text not null default '[]';

-- A job may need to know something before it goes on: question and answer are JSON.
alter table job
    add column question text,
    add column answer   text;
alter table job drop constraint job_state_check;
alter table job add constraint job_state_check
    check (state in ('QUEUED', 'RUNNING', 'ASKING', 'DONE', 'FAILED', 'CANCELLED'));
