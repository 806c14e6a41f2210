-- Up Migration

-- Hours that a person worked on a card, on the day that they name. Kept to a hundredth of an hour, as the history has them.
create table time_entry (
	id uuid primary key default gen_random_uuid(),
	card_id uuid not null references card,
	person_id uuid not null references person,
	day date not null,
	hours numeric(5, 2) not null check (hours > 0 and hours <= 24),
	note text not null default '' check (length(note) <= 500),
	billable boolean not null default false,
	-- The sprint in whose stint it was worked; none: outside of one.
	sprint_id uuid references sprint,
	command_id uuid references command,
	-- The event that tells the card's history of it.
	seq bigint,
	logged_at timestamptz not null,
	version integer not null default 1,
	withdrawn_at timestamptz
);
create index time_entry_person on time_entry (person_id, day) where withdrawn_at is null;
create index time_entry_card on time_entry (card_id, day) where withdrawn_at is null;
create index time_entry_day on time_entry (day) where withdrawn_at is null;
create index time_entry_sprint on time_entry (sprint_id) where sprint_id is not null;
create index time_entry_command on time_entry (command_id) where command_id is not null;

-- A person's running timer: there is at most one.
create table timer (
	person_id uuid primary key references person,
	card_id uuid not null references card,
	started_at timestamptz not null
);
create index timer_card on timer (card_id);

-- What an hour of a person costs, from a day on. Only leads see it.
create table hourly_rate (
	team_id uuid not null,
	person_id uuid not null,
	from_day date not null,
	rate numeric(9, 2) not null check (rate >= 0),
	primary key (team_id, person_id, from_day),
	foreign key (team_id, person_id) references membership
);
alter table team add currency text not null default '€' check (length(currency) between 1 and 8);

alter table board
	-- Whether members settle sprints too, not only leads.
	add members_settle boolean not null default false,
	-- Done cards stay on the board for so many days after their sprint was closed.
	add done_days integer not null default 0 check (done_days between 0 and 90);

alter table sprint
	-- Whether the goal was met, in one word and in the team's own.
	add goal_met text check (goal_met in ('yes', 'partly', 'no')),
	add goal_words text not null default '' check (length(goal_words) <= 1000),
	-- The team's hours on each of its days from the start on, as known at its start.
	add day_hours jsonb,
	add settled_by uuid references command;

-- Whom or what a blocked card waits for, beside why it is blocked.
alter table card add waiting_for text check (length(waiting_for) between 1 and 200);
alter table blockage add waiting_for text check (length(waiting_for) between 1 and 200);

alter table initiative add budget_hours numeric(9, 2) check (budget_hours > 0);

-- A finding of the rounds that is put aside for a day.
create table dismissal (
	board_id uuid not null references board,
	finding text not null check (length(finding) between 1 and 120),
	day date not null,
	reason text not null check (length(reason) between 1 and 300),
	person_id uuid not null references person,
	at timestamptz not null,
	withdrawn_at timestamptz,
	primary key (board_id, finding, day)
);

-- What settling and splitting said, for the reports that ask for it.
create index event_settled on event (board_id, kind, at) where kind in ('unfinished', 'split-from', 'sprint-settled');
