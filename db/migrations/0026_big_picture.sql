-- Up Migration

-- A day that matters to a team, or to one of its boards, and what must be done before it.
create table milestone (
	id uuid primary key default gen_random_uuid(),
	team_id uuid not null references team,
	board_id uuid references board,
	name text not null check (length(name) between 1 and 80),
	day date not null,
	withdrawn_at timestamptz
);
create index milestone_team on milestone (team_id, day) where withdrawn_at is null;
create index milestone_board on milestone (board_id) where board_id is not null;

create table milestone_before (
	id uuid primary key default gen_random_uuid(),
	milestone_id uuid not null references milestone,
	card_id uuid references card,
	initiative_id uuid references initiative,
	check (num_nonnulls(card_id, initiative_id) = 1),
	unique nulls not distinct (milestone_id, card_id, initiative_id)
);
create index milestone_before_card on milestone_before (card_id) where card_id is not null;
create index milestone_before_initiative on milestone_before (initiative_id) where initiative_id is not null;

-- An initiative begins on a day, is for something, stands in one of the team's stages, and may be shared by all its boards.
alter table initiative
	add wide boolean not null default false,
	add start date,
	add purpose text not null default '' check (length(purpose) <= 2000),
	add stage text check (length(stage) between 1 and 40),
	-- Why it stands in its stage though that was full.
	add let_through text;

-- How many initiatives a stage holds, by its name.
alter table team
	add stage_limits jsonb not null default '{}',
	-- Absences that members enter wait for a lead.
	add agree_absences boolean not null default false;
alter table absence add waits boolean not null default false;

-- The initiative of a board by its name: its own, or one that its team shares.
create function initiative_named(board uuid, called text) returns uuid language sql stable as $$
	select i.id from board o
	join board b on b.team_id = o.team_id
	join initiative i on i.board_id = b.id and i.name = called and (b.id = o.id or i.wide)
	where o.id = board
	order by i.board_id <> board
	limit 1
$$;

-- Somebody is put down for a day, or half of one, on something without a card. Nobody is in two places at once.
create table booking (
	id uuid primary key default gen_random_uuid(),
	team_id uuid not null references team,
	person_id uuid not null references person,
	day date not null,
	-- 0: morning, 1: afternoon.
	halves int4range not null default '[0,2)' check (halves <@ '[0,2)' and not isempty(halves)),
	board_id uuid references board,
	initiative_id uuid references initiative,
	site text not null default '' check (length(site) <= 80),
	note text not null default '' check (length(note) <= 200),
	withdrawn_at timestamptz,
	check (num_nonnulls(board_id, initiative_id, nullif(site, '')) = 1),
	constraint booking_apart exclude using gist (person_id with =, day with =, halves with &&) where (withdrawn_at is null)
);
create index booking_team on booking (team_id, day) where withdrawn_at is null;
create index booking_person on booking (person_id, day) where withdrawn_at is null;
create index booking_board on booking (board_id) where board_id is not null;
create index booking_initiative on booking (initiative_id) where initiative_id is not null;

-- What is to be known of somebody's week.
create table week_note (
	team_id uuid not null references team,
	person_id uuid not null references person,
	monday date not null check (extract(isodow from monday) = 1),
	note text not null check (length(note) between 1 and 300),
	primary key (team_id, person_id, monday)
);
create index week_note_person on week_note (person_id);

-- A private address under which calendars read somebody's days and due dates, or the sprints and milestones of a board.
create table calendar_address (
	id uuid primary key default gen_random_uuid(),
	person_id uuid not null references person,
	board_id uuid references board,
	secret_hash bytea not null unique,
	made_at timestamptz not null,
	revoked_at timestamptz
);
create index calendar_address_person on calendar_address (person_id, board_id);
create unique index calendar_address_one on calendar_address (person_id, board_id) nulls not distinct where revoked_at is null;
create index calendar_address_board on calendar_address (board_id) where board_id is not null;

-- Milestones hang on dates of cards: those with dates are looked for over several boards.
create index card_dated on card (board_id, coalesce(due, start)) where coalesce(due, start) is not null and archived_at is null;

-- A way of looking at what a team's boards show together is kept as one of a board is.
alter table lens
	alter board_id drop not null,
	add team_id uuid references team,
	add constraint lens_place check (num_nonnulls(board_id, team_id) = 1);
create index lens_team on lens (team_id, person_id) where team_id is not null;
