-- Up Migration

-- A fresh server is claimed with the code that it printed at its start.
create table set_up_code (
	code_hash bytea primary key
);

-- A session says on what it was opened and when it was last used, and can be ended by itself.
alter table session
	add id uuid not null default gen_random_uuid() unique,
	add device text not null default '',
	add seen_at timestamptz not null default now();
update session set seen_at = created_at;

alter table team
	-- The hours of a usual week here, Monday first: those who come in begin with it.
	add week numeric(4, 2)[] not null default '{8,8,8,8,8,0,0}' check (array_length(week, 1) = 7),
	-- The stages that initiatives go through.
	add stages text[] not null default '{}',
	add away_at timestamptz;

-- A link that lets people into a team: one, or several until it ends.
create table invitation (
	id uuid primary key default gen_random_uuid(),
	team_id uuid not null references team,
	role text not null check (role in ('lead', 'member', 'viewer')),
	title text not null default '' check (length(title) <= 80),
	several boolean not null default false,
	secret_hash bytea not null unique,
	made_by uuid not null references person,
	made_at timestamptz not null,
	until timestamptz not null,
	revoked_at timestamptz
);
create index invitation_team on invitation (team_id, until);
create index invitation_made_by on invitation (made_by);

create table invitation_taken (
	invitation_id uuid not null references invitation,
	person_id uuid not null references person,
	at timestamptz not null,
	primary key (invitation_id, person_id)
);
create index invitation_taken_person on invitation_taken (person_id);

-- A link to set a new password, good once and for a day.
create table reset (
	id uuid primary key default gen_random_uuid(),
	person_id uuid not null references person,
	secret_hash bytea not null unique,
	made_by uuid references person,
	made_at timestamptz not null,
	until timestamptz not null,
	used_at timestamptz
);
create index reset_person on reset (person_id);
create index reset_made_by on reset (made_by) where made_by is not null;

-- What a board begins with: kept by a team from one of its boards. Those that ship with Harrow are not here.
create table template (
	id uuid primary key default gen_random_uuid(),
	team_id uuid not null references team,
	name text not null check (length(name) between 1 and 80),
	sentence text not null default '' check (length(sentence) <= 200),
	document jsonb not null,
	made_by uuid not null references person,
	made_at timestamptz not null,
	retired_at timestamptz
);
create unique index template_name on template (team_id, lower(name)) where retired_at is null;
create index template_made_by on template (made_by);

-- Every key that a board ever had: cards go on answering to the old ones.
create table board_key (
	key text primary key check (key ~ '^[A-Z][A-Z0-9]{1,9}$'),
	board_id uuid not null references board
);
create index board_key_board on board_key (board_id);
insert into board_key select key, id from board;
create function keep_key() returns trigger language plpgsql as $$
begin
	insert into board_key (key, board_id) values (new.key, new.id)
	on conflict (key) do update set board_id = excluded.board_id where board_key.board_id = excluded.board_id;
	if not found then
		raise unique_violation using constraint = 'board_key_pkey', message = 'this key belonged to another board';
	end if;
	return null;
end $$;
create trigger board_keeps_key after insert or update of key on board for each row execute function keep_key();

alter table board
	-- Who may change it: members of its team, or of those only the named ones. Leads always may.
	add changed_by text not null default 'team' check (changed_by in ('team', 'named')),
	-- What it does not use and so does not show.
	add off text[] not null default '{}' check (off <@ array['hours', 'lanes', 'classes', 'dates', 'types']),
	add away_at timestamptz;
create unique index board_name on board (team_id, lower(name));

-- Who may see a board that named people see, and who of them may change it too.
alter table board_person add changes boolean not null default true;

create or replace view board_right as
select b.id as board_id, p.id as person_id,
	case when m.role = 'member' and b.changed_by = 'named' and not coalesce(n.changes, false) then 'viewer'
		else coalesce(m.role, 'viewer') end as role
from board b
cross join person p
left join membership m on m.team_id = b.team_id and m.person_id = p.id and m.left_at is null
left join board_person n on n.board_id = b.id and n.person_id = p.id
where m.role = 'lead'
	or (b.visible_to = 'team' and m.role is not null)
	or (b.visible_to = 'named' and n.person_id is not null and m.role is not null)
	or b.visible_to = 'signed-in';
