-- Up Migration

-- A page of a board, or of one of its initiatives, for what is about no single card: talk, notes and files.
create table page (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	initiative_id uuid references initiative,
	-- Markdown.
	notes text not null default '' check (length(notes) <= 50000),
	-- The page that goes on with it, once two initiatives have become one.
	merged_into uuid references page,
	version integer not null default 1,
	unique nulls not distinct (board_id, initiative_id)
);
create index page_initiative on page (initiative_id) where initiative_id is not null;
create index page_merged on page (merged_into) where merged_into is not null;

-- Who is told of what happens on a page, and why: they chose to (of an initiative: of its cards too); they talked there; or they
-- do not want to, though they lead it or talked there.
create table page_watch (
	page_id uuid not null references page,
	person_id uuid not null references person,
	how text not null check (how in ('chosen', 'took-part', 'stopped')),
	primary key (page_id, person_id)
);
create index page_watch_person on page_watch (person_id);

alter table event add page_id uuid references page;
create index event_page on event (page_id, seq) where page_id is not null;

alter table attachment
	alter card_id drop not null,
	add page_id uuid references page,
	add constraint attachment_place check (num_nonnulls(card_id, page_id) = 1);
create index attachment_page on attachment (page_id, at) where page_id is not null;

alter table question
	alter card_id drop not null,
	add page_id uuid references page,
	add constraint question_place check (num_nonnulls(card_id, page_id) = 1);
create index question_page on question (page_id) where page_id is not null;

-- What is told of a page stands by itself, as what is told of a card does.
alter table notice add page_id uuid references page;
create index notice_of_page on notice (page_id) where page_id is not null;
drop index notice_unread;
create unique index notice_unread on notice (person_id, board_id, card_id, page_id) nulls not distinct
	where read_at is null and away_at is null and not asks and day is null;

-- The latest notices of somebody, in the order of their page; and what of them is not read, or asks.
drop index notice_page;
create index notice_page on notice (person_id, at desc, id desc);
create index notice_counts on notice (person_id) where away_at is null and (read_at is null or asks);
