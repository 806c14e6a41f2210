-- Up Migration

-- Ways of looking at a board that somebody has kept: what its address says of which cards are shown and how they are laid
-- out, under a name; one's own, or shared with all who see the board.
create table lens (
	id uuid primary key default gen_random_uuid(),
	board_id uuid not null references board,
	person_id uuid not null references person,
	name text not null check (length(name) between 1 and 60),
	query text not null check (length(query) <= 4000),
	shared boolean not null,
	made_at timestamptz not null,
	retired_at timestamptz
);
create index lens_board on lens (board_id, person_id) where retired_at is null;
create index lens_person on lens (person_id);
