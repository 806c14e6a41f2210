-- Up Migration

-- How sprints follow each other: sprint_days long, each starting on this weekday (0: Monday), called by this word.
alter table board
	add sprint_weekday integer not null default 0 check (sprint_weekday between 0 and 6),
	add sprint_name text not null default 'Sprint' check (length(sprint_name) between 1 and 40);

-- A board's own types of card; a new card of a type begins with its checklist.
create table card_type (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	name text not null check (length(name) between 1 and 40),
	checklist text[] not null default '{}',
	position integer not null default 0,
	unique (board_id, name)
);

create table initiative (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	name text not null check (length(name) between 1 and 80),
	unique (board_id, name)
);

alter table card
	add start date,
	add initiative_id uuid references initiative,
	add parent_id uuid references card check (parent_id <> id),
	add ready boolean not null default false,
	-- [{ "id", "text", "done" }], in order
	add checklist jsonb not null default '[]',
	add check (start <= due);
create index card_parent on card (parent_id) where parent_id is not null;
create index card_initiative on card (initiative_id) where initiative_id is not null;

-- "from" blocks, relates to, or was split into "to".
create table card_link (
	from_id uuid not null references card,
	to_id uuid not null references card,
	kind text not null check (kind in ('blocks', 'relates', 'split')),
	primary key (from_id, to_id, kind),
	check (from_id <> to_id)
);
create index card_link_to on card_link (to_id);

-- focus and keep_back: set by hand until the sprint starts, frozen then; raw_hours: each person's hours, frozen at the start.
alter table sprint
	add focus numeric check (focus > 0 and focus <= 1),
	add keep_back numeric check (keep_back >= 0 and keep_back < 1),
	add raw_hours jsonb,
	add version integer not null default 1,
	add constraint sprint_apart exclude using gist (board_id with =, daterange(starts, ends, '[]') with &&) deferrable initially immediate;

-- How a person's hours are shared between the team's boards, from a day on: { board id: share }.
create table board_share (
	team_id uuid not null,
	person_id uuid not null,
	from_day date not null,
	shares jsonb not null,
	primary key (team_id, person_id, from_day),
	foreign key (team_id, person_id) references membership
);

create table skill (
	team_id uuid not null,
	person_id uuid not null,
	name text not null check (length(name) between 1 and 40),
	primary key (team_id, person_id, name),
	foreign key (team_id, person_id) references membership
);

-- Absences are withdrawn, not deleted; one read from a calendar keeps its name there, so that it is read once.
alter table absence
	add note text not null default '' check (length(note) <= 200),
	add calendar_uid text,
	add withdrawn_at timestamptz;
create unique index absence_calendar on absence (person_id, calendar_uid, from_day) where calendar_uid is not null;

alter table holiday add withdrawn_at timestamptz;

-- Someone who left the team keeps their name on what they did.
alter table membership add left_at timestamptz;

create or replace view board_right as
select b.id as board_id, p.id as person_id, coalesce(m.role, 'viewer') as role
from board b
cross join person p
left join membership m on m.team_id = b.team_id and m.person_id = p.id and m.left_at is null
left join board_person n on n.board_id = b.id and n.person_id = p.id
where m.role = 'lead'
	or (b.visible_to = 'team' and m.role is not null)
	or (b.visible_to = 'named' and n.person_id is not null)
	or b.visible_to = 'signed-in';

-- What undoing a command puts back beside its cards: the sprints it changed, as they were.
alter table command add sprints jsonb;
alter table command drop column undo;
