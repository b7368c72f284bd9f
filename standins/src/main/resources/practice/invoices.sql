create extension dblink;
create table invoice (
  id bigint generated always as identity primary key,
  customer_id bigint not null,
  cents bigint not null,
  written date not null default current_date,
  paid boolean not null default false
);
create function unbilled() returns bigint language sql as $$
  select n from dblink('host=127.0.0.1 port={port} dbname=orders user=app password=app',
    'select count(*) from purchase') as orders(n bigint)
$$;
grant select, insert, update, delete on all tables in schema public to app;
