-- What each source last told is kept apart, so that competing values are seen; which counts follows by rule.
alter table fact add column seen_at timestamp(3) with time zone;
update fact set seen_at = at;
alter table fact alter column seen_at set not null;
alter table fact add column latest boolean default false not null;
update fact set latest = true where id in (
  select max(id) from fact
   group by kind, object_key, attribute, origin, case when origin = 'STATED' then '' else source end);
alter table fact add column reading_id bigint;
drop index fact_counts;
alter table fact drop column counts;

-- other names of known objects, as people have said
create table object_alias (
  kind varchar(20) not null,
  other_key varchar(400) not null,
  object_key varchar(400) not null,
  person varchar(60) not null,
  at timestamp(3) with time zone not null,
  primary key (kind, other_key)
);

-- what accepting a reading did, so that it can be undone as a whole
alter table reading add column closed_at timestamp(3) with time zone;
alter table reading add column closed_by varchar(60);
alter table reading add column effects clob;

alter table programme add column stale_after_days int default 30 not null;

-- how the columns of files of one shape are meant
create table column_mapping (
  shape varchar(64) primary key,
  payload clob not null,
  person varchar(60) not null,
  at timestamp(3) with time zone not null
);

-- files that wait for their columns to be mapped
create table inventory_file (
  id bigint generated always as identity primary key,
  name varchar(300) not null,
  at timestamp(3) with time zone not null,
  person varchar(60) not null,
  content blob not null
);

create table saved_view (
  id bigint generated always as identity primary key,
  person varchar(60) not null,
  name varchar(120) not null,
  address varchar(4000) not null,
  unique (person, name)
);

alter table source_server add column engine varchar(20) default 'POSTGRESQL' not null;
