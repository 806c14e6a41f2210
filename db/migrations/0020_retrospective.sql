-- Up Migration

-- A team looks back together: notes face down, turned over, laid together, voted on; what is agreed; closed.
create table retrospective (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	number integer not null,
	-- The sprint that it is about; none where it is held on any day.
	sprint_id uuid references sprint,
	columns text[] not null check (cardinality(columns) between 1 and 5),
	-- Nobody who writes a note is stored with it, anywhere.
	anonymous boolean not null,
	-- So many votes each person has.
	votes integer not null default 3 check (votes between 1 and 10),
	phase text not null default 'write' check (phase in ('write', 'lay', 'vote', 'agree', 'closed')),
	opened_by uuid not null references person,
	opened_at timestamptz not null,
	closed_at timestamptz,
	unique (board_id, number)
);
-- One is held at a time.
create unique index retrospective_open on retrospective (board_id) where phase <> 'closed';
create index retrospective_sprint on retrospective (sprint_id);
create index retrospective_opened_by on retrospective (opened_by);

-- A note. It has no time, and all of them are written anew, in no order, when they are turned over.
create table retro_note (
	id uuid primary key default gen_random_uuid(),
	retrospective_id uuid not null references retrospective,
	-- The column it is written in, from 0 on.
	place integer not null,
	words text not null,
	author_id uuid references person,
	-- Of a note without an author, as long as it lies face down: the hash of a key that only its writer’s browser has.
	own bytea unique,
	-- The note that it was laid on.
	on_id uuid references retro_note,
	-- Counted when voting ends.
	votes integer not null default 0
);
create index retro_note_of on retro_note (retrospective_id);
create index retro_note_author on retro_note (author_id);
create index retro_note_on on retro_note (on_id);

-- Votes while they are given; when they are counted it is stored nowhere who gave them.
create table retro_vote (
	note_id uuid not null references retro_note,
	person_id uuid not null references person,
	votes integer not null check (votes between 1 and 10),
	primary key (note_id, person_id)
);
create index retro_vote_person on retro_vote (person_id);

-- What was agreed.
create table retro_action (
	id uuid primary key default gen_random_uuid(),
	retrospective_id uuid not null references retrospective,
	-- In the order in which they were agreed.
	position integer not null,
	words text not null,
	owner_id uuid references person,
	due date,
	-- The card that it became; its state is then that of the card.
	card_id uuid references card,
	agreed_at timestamptz not null,
	done_at timestamptz,
	withdrawn_at timestamptz,
	version integer not null default 1
);
create index retro_action_of on retro_action (retrospective_id);
create index retro_action_owner on retro_action (owner_id);
create index retro_action_card on retro_action (card_id);
