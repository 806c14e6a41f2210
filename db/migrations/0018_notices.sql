-- Up Migration

-- Who watches a card, and why: they chose to or were asked to; they made it or talked on it; or they do not want to, though
-- they own it, review it, made it or talked on it.
alter table watch add how text not null default 'chosen' check (how in ('chosen', 'took-part', 'stopped'));

-- A private card is seen by those who chose to watch it, not by all who once took part.
create or replace function may_see(c card, person uuid) returns boolean language sql stable as $$
	select not c.private
		or c.reviewer_id = person
		or exists (select from card_owner o where o.card_id = c.id and o.person_id = person)
		or exists (select from watch w where w.card_id = c.id and w.person_id = person and w.how = 'chosen')
$$;

-- Whoever made a card or talked on it before this watches it too.
insert into watch (card_id, person_id, how)
select distinct e.card_id, e.actor_id, 'took-part'
from event e
where e.kind in ('created', 'comment') and e.card_id is not null and e.actor_id is not null
on conflict do nothing;

-- Who watches a whole board.
create table board_watch (
	board_id uuid not null references board,
	person_id uuid not null references person,
	primary key (board_id, person_id)
);
create index board_watch_person on board_watch (person_id);

-- How somebody wants to be told of what: by kinds of notices, and by kinds on one board.
alter table person add notices jsonb not null default '{}';

-- What somebody is told. As long as they have not read it, what else happens to the same card joins it.
create table notice (
	id uuid primary key default gen_random_uuid(),
	person_id uuid not null references person,
	board_id uuid not null references board,
	card_id uuid references card,
	-- The latest events of the board that it tells, at most twenty, and what each is to this person.
	seqs bigint[] not null,
	kinds text[] not null,
	-- How many events there were.
	times integer not null default 1,
	-- It is a question to this person, and stands by itself.
	asks boolean not null default false,
	-- It tells no event: a day has come near, or has passed.
	day date,
	at timestamptz not null,
	read_at timestamptz,
	away_at timestamptz
);
create unique index notice_unread on notice (person_id, board_id, card_id) nulls not distinct
	where read_at is null and away_at is null and not asks and day is null;
-- Of each day somebody is told once.
create unique index notice_day on notice (person_id, board_id, card_id, (kinds[1]), day) nulls not distinct where day is not null;
create index notice_page on notice (person_id, at desc, id);
create index notice_board on notice (board_id);
create index notice_card on notice (card_id);

-- Questions to people in what was said on a card: each stands until it is answered.
create table question (
	board_id uuid not null,
	seq bigint not null,
	card_id uuid not null references card,
	person_id uuid not null references person,
	-- The comment that answers it.
	answered_seq bigint,
	primary key (board_id, seq, person_id),
	foreign key (board_id, seq) references event
);
create index question_card on question (card_id);
create index question_person on question (person_id);

-- Who gave cards to others.
create index event_actor_owner on event (actor_id) where kind = 'owner';
