-- Up Migration

-- Who looks a card over before it is done, and by when; how much of it is done, where somebody said so; and whether only
-- those who have to do with it may see it.
alter table card
	add reviewer_id uuid references person,
	add review_by date,
	add percent smallint check (percent between 0 and 100),
	add private boolean not null default false,
	add moved_to uuid references card;
create index card_reviewer on card (reviewer_id) where reviewer_id is not null;
create index card_moved_to on card (moved_to) where moved_to is not null;
create index card_private on card (board_id) where private;

-- People who want to know what happens to a card. A private one is seen by them too.
create table watch (
	card_id uuid not null references card,
	person_id uuid not null references person,
	primary key (card_id, person_id)
);
create index watch_person on watch (person_id);

-- Whether a person may see a card of a board that they may see.
create function may_see(c card, person uuid) returns boolean language sql stable as $$
	select not c.private
		or c.reviewer_id = person
		or exists (select from card_owner o where o.card_id = c.id and o.person_id = person)
		or exists (select from watch w where w.card_id = c.id and w.person_id = person)
$$;

-- The states that lines of a checklist can have on this board beside ticked or not, in their order; and which fields its
-- cards show.
alter table board
	add line_states text[] not null default '{}',
	add face jsonb;

-- Which fields one person has cards of a board show, in the place of what the board has.
create table face (
	board_id uuid not null references board,
	person_id uuid not null references person,
	face jsonb not null,
	primary key (board_id, person_id)
);
create index face_person on face (person_id);

-- What files hold, each once, however many cards have it.
create table blob (
	sha256 bytea primary key check (octet_length(sha256) = 32),
	bytes integer not null check (bytes >= 0),
	-- What it is by its first bytes; null where they say nothing.
	media text,
	data bytea not null
);
alter table blob alter column data set storage external;

-- What somebody has sent and not put on a card yet.
create table upload (
	id uuid primary key default gen_random_uuid(),
	person_id uuid not null references person,
	sha256 bytea not null references blob,
	at timestamptz not null
);
create index upload_person on upload (person_id);
create index upload_blob on upload (sha256);
create index upload_at on upload (at);

create table attachment (
	id uuid primary key default gen_random_uuid(),
	card_id uuid not null references card,
	name text not null check (length(name) between 1 and 200),
	sha256 bytea not null references blob,
	person_id uuid not null references person,
	at timestamptz not null,
	-- The picture that the card shows.
	front boolean not null default false,
	removed_at timestamptz,
	version integer not null default 1,
	-- A card shows one picture; which one may change in one step.
	constraint attachment_front exclude using btree (card_id with =) where (front and removed_at is null)
		deferrable initially deferred
);
create index attachment_card on attachment (card_id, at);
create index attachment_blob on attachment (sha256);
create index attachment_person on attachment (person_id);
