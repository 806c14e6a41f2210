-- Up Migration

-- A reminder on a card, for whoever made it or for its owners: at a moment, or so many days before it starts or is due, at an
-- hour where its team is. It moves with that date, and comes again where the date is put off.
create table reminder (
	id uuid primary key default gen_random_uuid(),
	card_id uuid not null references card,
	person_id uuid not null references person,
	owners boolean not null,
	words text not null default '',
	at timestamptz,
	before text check (before in ('start', 'due')),
	days integer check (days between 0 and 60),
	hour integer check (hour between 0 and 23),
	made_at timestamptz not null,
	-- The moment for which it last came.
	told timestamptz,
	dropped_at timestamptz,
	check ((at is null) = (before is not null and days is not null and hour is not null))
);
create index reminder_of_card on reminder (card_id);
create index reminder_person on reminder (person_id);

-- When a reminder comes; null where its card has no such date.
create function reminder_moment(r reminder, c card, zone text) returns timestamptz language sql stable as $$
	select coalesce(r.at,
		((case r.before when 'due' then c.due else c.start end - r.days) + make_interval(hours => r.hour)) at time zone zone)
$$;

alter table notice add reminder_id uuid references reminder;
create index notice_reminder on notice (reminder_id);
drop index notice_day;
create unique index notice_day on notice (person_id, board_id, card_id, (kinds[1]), day, reminder_id) nulls not distinct where day is not null;
