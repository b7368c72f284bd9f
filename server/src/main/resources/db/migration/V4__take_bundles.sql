-- keys of collectors and feeds; what is kept is a hash
create table token (
  id bigint generated always as identity primary key,
  name varchar(60) not null unique,
  purpose varchar(30) not null,
  hash varchar(64) not null unique,
  created_by varchar(60) not null,
  created_at timestamp(3) with time zone not null,
  last_used_at timestamp(3) with time zone,
  revoked_at timestamp(3) with time zone
);

-- bundles of collectors: their readings wait to be accepted, their counters for what they are of
create table bundle (
  id bigint generated always as identity primary key,
  uid varchar(36) not null unique,
  name varchar(300) not null,
  site varchar(100) not null,
  person varchar(60) not null,
  received_at timestamp(3) with time zone not null,
  from_at timestamp(3) with time zone not null,
  to_at timestamp(3) with time zone not null,
  state varchar(20) not null,
  samples bigint default 0 not null,
  payload clob not null
);

alter table reading add column bundle_id bigint references bundle (id);
create index reading_bundle on reading (bundle_id);
