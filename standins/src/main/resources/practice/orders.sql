create extension postgres_fdw;
create server customers foreign data wrapper postgres_fdw
  options (host '127.0.0.1', port '{port}', dbname 'customers');
create user mapping for app server customers options (user 'app', password 'app');
create foreign table customer (id bigint, name text, town text) server customers options (table_name 'customer');
create table purchase (
  id bigint generated always as identity primary key,
  customer_id bigint not null,
  article_id bigint not null,
  amount int not null,
  cents bigint not null,
  at timestamptz not null default now()
);
create index on purchase (customer_id);
create table purchase_note (purchase_id bigint, words text);
create sequence receipt_number;
grant select, insert, update, delete on all tables in schema public to app;
grant usage on foreign server customers to app;
grant usage on all sequences in schema public to app;
