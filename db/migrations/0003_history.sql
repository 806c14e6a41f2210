-- Up Migration
create extension if not exists btree_gist;

-- Every change that was asked for, by the id that its sender made: the same id again answers the first answer.
create table command (
	id uuid primary key,
	person_id uuid not null references person,
	board_id uuid references board,
	name text not null,
	input jsonb not null,
	at timestamptz not null,
	answer jsonb not null default '{}',
	-- The command that takes this one back, where it can be taken back.
	undo jsonb,
	undone_by uuid references command
);
create index command_person on command (person_id, at);

-- Everything that happened, appended only. Kinds that stand in the history file carry its value as text.
create table event (
	board_id uuid not null references board,
	seq bigint not null,
	card_id uuid references card,
	actor_id uuid references person,
	command_id uuid references command,
	kind text not null,
	at timestamptz not null,
	value text not null default '',
	before jsonb,
	after jsonb,
	primary key (board_id, seq)
);
create index event_card on event (card_id, seq);
create index event_flow on event (board_id, at, seq);

create function refuse_change() returns trigger language plpgsql as $$
begin
	raise exception 'events are appended only';
end $$;
create trigger event_append_only before update or delete on event for each row execute function refuse_change();

-- A card's stays, one after the other without overlap; no column means the backlog.
create table stay (
	card_id uuid not null references card,
	column_id uuid references board_column,
	entered_at timestamptz not null,
	left_at timestamptz check (left_at >= entered_at),
	exclude using gist (card_id with =, tstzrange(entered_at, left_at) with &&)
);
create unique index stay_open on stay (card_id) where left_at is null;
create index stay_column on stay (column_id);

create table blockage (
	card_id uuid not null references card,
	from_at timestamptz not null,
	until_at timestamptz check (until_at >= from_at),
	reason text not null check (length(reason) between 1 and 500),
	exclude using gist (card_id with =, tstzrange(from_at, until_at) with &&)
);
create unique index blockage_open on blockage (card_id) where until_at is null;

-- Events that were taken back: they stay in the history and count in no figure.
create table event_void (
	board_id uuid not null,
	seq bigint not null,
	command_id uuid not null references command,
	primary key (board_id, seq),
	foreign key (board_id, seq) references event
);

-- The cards a command changed, as they were before it: what undo puts back.
create table command_card (
	command_id uuid not null references command,
	card_id uuid not null references card,
	-- null: the command made the card
	before jsonb,
	version_after integer not null,
	primary key (command_id, card_id)
);
