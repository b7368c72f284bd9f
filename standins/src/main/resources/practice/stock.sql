create table article (
  id bigint generated always as identity primary key,
  label text not null,
  on_hand int not null check (on_hand >= 0),
  place text
);
create table movement (
  id bigint generated always as identity primary key,
  article_id bigint not null references article (id),
  amount int not null,
  at timestamptz not null default now()
);
create function touch() returns trigger language plpgsql as $$
begin
  insert into movement (article_id, amount) values (new.id, new.on_hand - old.on_hand);
  return new;
end $$;
create trigger moved after update of on_hand on article for each row execute function touch();
insert into article (label, on_hand, place)
  select 'Article ' || n, 500, 'Bay ' || n % 40 from generate_series(1, 5000) as n;
create publication for_reports for table article;
grant select, insert, update, delete on all tables in schema public to app;
