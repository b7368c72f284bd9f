-- metrics servers that a lead has listed
create table metric_source (
  name varchar(120) primary key,
  url varchar(500) not null,
  login varchar(200),
  secret varbinary(2000),
  step_seconds int not null,
  targets clob not null,
  mapping clob,
  read_until timestamp(3) with time zone,
  version int not null
);
