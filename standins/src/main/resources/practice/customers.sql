create table customer (
  id bigint generated always as identity primary key,
  name text not null,
  town text not null,
  since date not null default current_date,
  balance_cents bigint not null default 0
);
create index on customer (town);
create table visit (customer_id bigint not null references customer (id), at timestamptz not null default now(), note text);
create view in_debt as select id, name, balance_cents from customer where balance_cents < 0;
create function greet(wanted bigint) returns text language plpgsql as $$
declare found text;
begin
  select name into found from customer where id = wanted;
  return 'Dear ' || coalesce(found, 'customer');
end $$;
insert into customer (name, town)
  select 'Customer ' || n, (array['Aldmere', 'Brackwater', 'Cold Ferry', 'Denholt'])[1 + n % 4]
    from generate_series(1, 20000) as n;
grant select, insert, update, delete on all tables in schema public to app;
