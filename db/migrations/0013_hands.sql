-- Up Migration

-- How many cards one person may have in hand on the board, and what one more meets.
alter table board
	add person_limit integer check (person_limit between 1 and 99),
	add person_mode text not null default 'advise' check (person_mode in ('advise', 'hold'));
