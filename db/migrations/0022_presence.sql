-- Up Migration

-- Which pages are open now, and on what: lost with the server, and worth nothing a minute later.
create unlogged table presence (
	page uuid primary key,
	person_id uuid not null,
	board_id uuid not null,
	-- The card that is open there, and the field that is written in.
	card_id uuid,
	field text,
	seen_at timestamptz not null
);
create index presence_board on presence (board_id);
