-- What a board's history was folded to, so that a process that starts need not read all of it again. Whatever stands here
-- can be read again from the events: it may be deleted at any time.
create table fold_snapshot (
	board_id uuid primary key references board on delete cascade,
	seq bigint not null,
	-- By what it was folded: another version of the application, or other columns, fold anew.
	version text not null,
	columns text not null,
	lines bytea not null,
	made_at timestamptz not null
);
alter table fold_snapshot alter lines set storage external;
