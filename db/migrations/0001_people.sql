-- Up Migration

create table person (
	id uuid primary key default gen_random_uuid(),
	name text not null check (length(name) between 1 and 80),
	initials text not null check (length(initials) between 1 and 3),
	email text not null check (length(email) <= 200),
	password_hash text,
	time_zone text not null default 'Europe/London',
	created_at timestamptz not null
);
create unique index person_email on person (lower(email));

create table session (
	token_hash bytea primary key,
	person_id uuid not null references person,
	created_at timestamptz not null,
	expires_at timestamptz not null
);
create index session_person on session (person_id);

create table sign_in_failure (
	email text not null,
	at timestamptz not null
);
create index sign_in_failure_email on sign_in_failure (email, at);

create table access_token (
	id uuid primary key default gen_random_uuid(),
	token_hash bytea not null unique,
	person_id uuid not null references person,
	name text not null check (length(name) between 1 and 80),
	scope text not null check (scope in ('read', 'write')),
	created_at timestamptz not null,
	revoked_at timestamptz
);
create index access_token_person on access_token (person_id);

create table team (
	id uuid primary key default gen_random_uuid(),
	name text not null check (length(name) between 1 and 80),
	time_zone text not null
);

create table membership (
	team_id uuid not null references team,
	person_id uuid not null references person,
	role text not null check (role in ('lead', 'member', 'viewer')),
	title text not null default '',
	primary key (team_id, person_id)
);
create index membership_person on membership (person_id);

-- Hours on each weekday, Monday first, from a day on: a change does not rewrite the past.
create table working_week (
	team_id uuid not null,
	person_id uuid not null,
	from_day date not null,
	hours numeric(4, 2)[] not null check (array_length(hours, 1) = 7),
	primary key (team_id, person_id, from_day),
	foreign key (team_id, person_id) references membership
);

create table absence (
	id uuid primary key default gen_random_uuid(),
	person_id uuid not null references person,
	from_day date not null,
	to_day date not null check (to_day >= from_day),
	-- null: the whole day
	hours numeric(4, 2) check (hours > 0)
);
create index absence_person on absence (person_id, from_day);

create table holiday (
	team_id uuid not null references team,
	day date not null,
	name text not null,
	primary key (team_id, day)
);
