-- Up Migration

-- Fields that a board adds to its cards. Choices keep their ids whatever they are called; values lie with the cards, by
-- the ids of the fields, and stay when a field is retired.
create table field (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	name text not null check (length(name) between 1 and 40),
	kind text not null check (kind in ('text', 'number', 'date', 'choice', 'yes-no')),
	-- [{ "id", "name" }], in order
	choices jsonb not null default '[]',
	position integer not null,
	retired_at timestamptz,
	version integer not null default 1
);
create unique index field_name on field (board_id, lower(name));
alter table card add fields jsonb not null default '{}' check (jsonb_typeof(fields) = 'object');
