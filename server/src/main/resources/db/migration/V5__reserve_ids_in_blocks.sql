-- Each block of ids costs a write of everything unsaved, and blocks of 32 made that most of the time of large readings.
alter table fact alter column id set cache 10000;
alter table journal alter column id set cache 1000;
