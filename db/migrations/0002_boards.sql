-- Up Migration

create table board (
	id uuid primary key default gen_random_uuid(),
	team_id uuid not null references team,
	name text not null check (length(name) between 1 and 80),
	slug text not null unique check (slug ~ '^[a-z0-9-]+$'),
	key text not null unique check (key ~ '^[A-Z][A-Z0-9]{1,9}$'),
	purpose text not null default '',
	visible_to text not null default 'team' check (visible_to in ('team', 'named', 'signed-in')),
	unit text not null default 'hours' check (unit in ('hours', 'points', 'none')),
	-- null: continuous flow
	sprint_days integer check (sprint_days between 1 and 90),
	expectation_percentile integer not null default 85 check (expectation_percentile between 50 and 99),
	position integer not null default 0,
	-- The number of the last event and of the last card: taken under a lock on this row, so neither has gaps.
	last_seq bigint not null default 0,
	last_number integer not null default 0
);
create index board_team on board (team_id, position);

-- Who may see a board that only named people see.
create table board_person (
	board_id uuid not null references board,
	person_id uuid not null references person,
	primary key (board_id, person_id)
);

create table board_column (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	name text not null check (length(name) between 1 and 40),
	kind text not null check (kind in ('queue', 'work', 'done')),
	position integer not null,
	wip_limit integer check (wip_limit between 1 and 999),
	limit_mode text not null default 'advise' check (limit_mode in ('advise', 'hold')),
	policy text not null default '' check (length(policy) <= 500),
	commitment boolean not null default false,
	version integer not null default 1,
	unique (board_id, name),
	unique (board_id, position) deferrable
);
create unique index board_column_commitment on board_column (board_id) where commitment;

create table sprint (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	number integer not null check (number > 0),
	goal text not null default '' check (length(goal) <= 500),
	starts date not null,
	ends date not null check (ends >= starts),
	started_at timestamptz,
	closed_at timestamptz check (closed_at >= started_at),
	unique (board_id, number)
);
create unique index sprint_running on sprint (board_id) where started_at is not null and closed_at is null;

create table card (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	number integer not null,
	title text not null check (length(title) between 1 and 300),
	description text not null default '' check (length(description) <= 50000),
	-- null: the backlog
	column_id uuid references board_column,
	rank text collate "C" not null,
	type text not null default '',
	class text not null default 'standard' check (class in ('expedite', 'fixed', 'standard', 'background')),
	size numeric(9, 2) check (size >= 0),
	"left" numeric(9, 2) not null default 0 check ("left" >= 0),
	due date,
	sprint_id uuid references sprint,
	unplanned boolean not null default false,
	-- The card's clock, as the core reads it from the events: kept here so that a board is one question.
	clock text not null default 'none' check (clock in ('none', 'running', 'done', 'dropped')),
	entered_at timestamptz,
	started_at timestamptz,
	finished_at timestamptz,
	blocked_since timestamptz,
	blocked_reason text,
	-- Why the card was let into its column over the limit.
	let_through text,
	archived_at timestamptz,
	archived_reason text,
	created_at timestamptz not null,
	version integer not null default 1,
	unique (board_id, number),
	check ((blocked_since is null) = (blocked_reason is null)),
	check ((clock in ('running', 'done')) <= (started_at is not null)),
	check ((clock = 'done') = (finished_at is not null))
);
create unique index card_place on card (board_id, column_id, rank) nulls not distinct where archived_at is null;
create index card_column on card (column_id) where archived_at is null;
create index card_finished on card (board_id, finished_at) where clock = 'done';
create index card_sprint on card (sprint_id);

create table card_owner (
	card_id uuid not null references card,
	person_id uuid not null references person,
	primary key (card_id, person_id)
);
create index card_owner_person on card_owner (person_id);

create table label (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	name text not null check (length(name) between 1 and 40),
	unique (board_id, name)
);

create table card_label (
	card_id uuid not null references card,
	label_id uuid not null references label,
	primary key (card_id, label_id)
);
