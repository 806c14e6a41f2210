-- Up Migration

-- What was there when a backup was made: of what only grows, no less may come back.
create table backup (
	at timestamptz primary key,
	people integer not null,
	cards integer not null,
	events integer not null,
	entries integer not null
);
