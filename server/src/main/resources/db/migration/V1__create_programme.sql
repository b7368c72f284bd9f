create table programme (
  id int primary key,
  name varchar(200) not null,
  zone varchar(60) not null,
  demo boolean not null,
  percentile double precision not null,
  headroom_percent int not null,
  horizon_months int not null,
  look_back_days int not null,
  growth_percent_per_year double precision not null,
  link_bytes_per_second bigint not null,
  version int not null
);

create table person (
  login varchar(60) primary key,
  name varchar(120) not null,
  role varchar(20) not null,
  password_hash varchar(100) not null
);

create table journal (
  id bigint generated always as identity primary key,
  at timestamp(3) with time zone not null,
  person varchar(60) not null,
  action varchar(60) not null,
  object_kind varchar(20) not null,
  object_key varchar(400) not null,
  attribute varchar(60),
  from_value varchar(2000),
  to_value varchar(2000),
  note varchar(2000)
);
create index journal_object on journal (object_kind, object_key);
create index journal_attribute on journal (attribute, at);

create table estate_object (
  kind varchar(20) not null,
  object_key varchar(400) not null,
  gone_at timestamp(3) with time zone,
  primary key (kind, object_key)
);

create table object_source (
  kind varchar(20) not null,
  object_key varchar(400) not null,
  source varchar(300) not null,
  primary key (kind, object_key, source)
);

create table fact (
  id bigint generated always as identity primary key,
  kind varchar(20) not null,
  object_key varchar(400) not null,
  attribute varchar(40) not null,
  fact_value varchar(2000) not null,
  origin varchar(20) not null,
  source varchar(300) not null,
  place varchar(200) not null,
  at timestamp(3) with time zone not null,
  pinned boolean not null,
  reason varchar(2000),
  counts boolean not null,
  foreign key (kind, object_key) references estate_object (kind, object_key)
);
create index fact_object on fact (kind, object_key, attribute);
create index fact_counts on fact (counts);

create table reading (
  id bigint generated always as identity primary key,
  source varchar(300) not null,
  at timestamp(3) with time zone not null,
  person varchar(60) not null,
  state varchar(20) not null,
  payload clob not null
);

create table source_server (
  instance varchar(200) primary key,
  host varchar(300) not null,
  port int not null,
  database_name varchar(200) not null,
  login varchar(200) not null,
  secret varbinary(2000) not null,
  tls varchar(20) not null,
  sampling_seconds int,
  sampled_at timestamp(3) with time zone,
  sampling_problem varchar(2000)
);

create table series (
  id bigint generated always as identity primary key,
  object_key varchar(400) not null,
  measure varchar(40) not null,
  step_seconds int not null,
  unique (object_key, measure)
);

create table series_day (
  series_id bigint not null references series (id),
  day_epoch int not null,
  present int not null,
  lowest double precision not null,
  highest double precision not null,
  total double precision not null,
  payload varbinary(40000) not null,
  primary key (series_id, day_epoch)
);

create table job (
  id bigint generated always as identity primary key,
  kind varchar(40) not null,
  title varchar(400) not null,
  state varchar(20) not null,
  person varchar(60) not null,
  started_at timestamp(3) with time zone not null,
  ended_at timestamp(3) with time zone,
  message varchar(2000),
  result clob
);

create table catalogue (
  id int primary key,
  name varchar(200) not null,
  at timestamp(3) with time zone not null,
  payload clob not null
);

create table tie (
  id bigint generated always as identity primary key,
  from_key varchar(400) not null,
  to_key varchar(400) not null,
  kind varchar(20) not null,
  weight double precision not null,
  state varchar(20) not null,
  version int not null,
  unique (from_key, to_key)
);

create table tie_evidence (
  tie_id bigint not null references tie (id),
  origin varchar(20) not null,
  source varchar(300) not null,
  words varchar(1000) not null,
  at timestamp(3) with time zone not null,
  primary key (tie_id, source, words)
);

create table wave (
  wave_key varchar(10) primary key,
  name varchar(200) not null,
  starts_at timestamp(3) with time zone not null,
  ends_at timestamp(3) with time zone not null,
  max_databases int not null,
  max_bytes bigint not null,
  version int not null
);

create table freeze (
  id bigint generated always as identity primary key,
  name varchar(200) not null,
  starts_at timestamp(3) with time zone not null,
  ends_at timestamp(3) with time zone not null
);

create table placement (
  database_key varchar(400) primary key,
  wave_key varchar(10) not null references wave (wave_key),
  locked boolean not null
);

create table plan (
  id bigint generated always as identity primary key,
  at timestamp(3) with time zone not null,
  person varchar(60) not null,
  state varchar(20) not null,
  payload clob not null
);

create table database_state (
  database_key varchar(400) primary key,
  prepared_at timestamp(3) with time zone,
  settled_at timestamp(3) with time zone,
  retired_at timestamp(3) with time zone
);

create table crossing (
  number int primary key,
  database_key varchar(400) not null,
  stage varchar(20) not null,
  condition varchar(20) not null,
  progress double precision not null,
  lag_seconds bigint,
  reason varchar(2000),
  owner varchar(60),
  started_at timestamp(3) with time zone not null,
  changed_at timestamp(3) with time zone not null,
  version int not null
);
create index crossing_database on crossing (database_key);
