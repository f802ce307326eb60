-- Pictures of samples, by what they depend on.
create table chip (
    key char(64) primary key,
    png bytea not null
);
