-- Up Migration

-- Lanes across the columns of a board. One that stands for a class of service holds the cards of that class; in another
-- one stands what was put there. A card of a class that has a lane stands in that, whatever other lane it was put in.
create table lane (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	name text not null check (length(name) between 1 and 40),
	class text check (class in ('expedite', 'fixed', 'standard', 'background')),
	position integer not null,
	wip_limit integer check (wip_limit between 1 and 999),
	limit_mode text not null default 'advise' check (limit_mode in ('advise', 'hold')),
	retired_at timestamptz,
	version integer not null default 1
);
create unique index lane_name on lane (board_id, lower(name));
create unique index lane_class on lane (board_id, class) where class is not null and retired_at is null;

alter table card add lane_id uuid references lane on delete set null;
create index card_lane on card (lane_id) where lane_id is not null;

-- What a card of a kind begins with: its size, where it has none of its own, and its class of service.
alter table card_type
	add first_size numeric check (first_size >= 0),
	add first_class text check (first_class in ('expedite', 'fixed', 'standard', 'background'));

-- What an initiative may cost, by when it is to be done, and who leads it.
alter table initiative
	add budget_money numeric check (budget_money > 0),
	add target date,
	add lead_id uuid references person;
create index initiative_lead on initiative (lead_id) where lead_id is not null;
