create table article (id bigint primary key, label text not null, on_hand int not null, place text);
create materialized view by_place as select place, sum(on_hand) as on_hand from article group by place;
create table monthly (month date, figure text, amount numeric);
create subscription from_stock
  connection 'host=127.0.0.1 port={port} dbname=stock user=postgres password={password}'
  publication for_reports with (create_slot = false, slot_name = 'reports');
grant select, insert, update, delete on all tables in schema public to app;
