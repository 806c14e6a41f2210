-- Up Migration

-- What undoing a command puts back beside its cards: rows as they were before it and as it left them. Sprints, which had
-- a place of their own, are among them; what was done before cannot be taken back any more.
update command set answer = answer || '{"undoable": false}' where sprints is not null;
alter table command
	drop column sprints,
	add kept jsonb,
	-- The team that it was about, where it was about one, and the least role that it asked for.
	add team_id uuid references team,
	add role text;
create index command_board on command (board_id, at desc) where kept is not null;
create index command_team on command (team_id, at desc) where team_id is not null;

-- Whoever left a team is one of its named people no longer.
create or replace view board_right as
select b.id as board_id, p.id as person_id, coalesce(m.role, 'viewer') as role
from board b
cross join person p
left join membership m on m.team_id = b.team_id and m.person_id = p.id and m.left_at is null
left join board_person n on n.board_id = b.id and n.person_id = p.id
where m.role = 'lead'
	or (b.visible_to = 'team' and m.role is not null)
	or (b.visible_to = 'named' and n.person_id is not null and m.role is not null)
	or b.visible_to = 'signed-in';

-- An event that corrects another stands where that one stood: then, and in its place among those of the same instant.
alter table event add stands_for bigint;

-- Failed tries to sign in are counted, not listed, so that counting and writing are one step.
delete from sign_in_failure;
alter table sign_in_failure
	drop column email,
	drop column at,
	add key text primary key,
	add points integer not null default 0,
	add expire bigint;
create index sign_in_failure_expire on sign_in_failure (expire);

-- From which day on somebody was in a team, and from which on no longer: figures ask who was a member then. A member of
-- whom no days are kept has always been one.
create table membership_spell (
	team_id uuid not null,
	person_id uuid not null,
	from_day date not null,
	until_day date check (until_day >= from_day),
	primary key (team_id, person_id, from_day),
	foreign key (team_id, person_id) references membership
);
create unique index membership_spell_open on membership_spell (team_id, person_id) where until_day is null;
insert into membership_spell (team_id, person_id, from_day, until_day)
select m.team_id, m.person_id, date '2000-01-01', (m.left_at at time zone t.time_zone)::date
from membership m
join team t on t.id = m.team_id
where m.left_at is not null;

-- A type, label or initiative that is offered no more; what carries it goes on carrying it.
alter table card_type add retired_at timestamptz;
alter table label add retired_at timestamptz;
alter table initiative add retired_at timestamptz;
