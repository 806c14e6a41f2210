-- Up Migration

-- A column that was taken away keeps its past; a hidden one stands, and is not shown.
alter table board_column
	add retired_at timestamptz,
	add hidden boolean not null default false;

-- Every name that a column ever had: the history tells of it by the name that it had then, so no two columns of a board
-- ever have the same one.
create table column_name (
	board_id uuid not null references board,
	name text not null,
	column_id uuid not null references board_column on delete cascade,
	primary key (board_id, name)
);
create index column_name_column on column_name (column_id);
insert into column_name select board_id, name, id from board_column;
create function keep_column_name() returns trigger language plpgsql as $$
begin
	insert into column_name (board_id, name, column_id) values (new.board_id, new.name, new.id)
	on conflict (board_id, name) do update set column_id = excluded.column_id where column_name.column_id = excluded.column_id;
	if not found then
		raise unique_violation using constraint = 'column_name_pkey', message = 'another column had this name';
	end if;
	return null;
end $$;
create trigger column_keeps_name after insert or update of name on board_column
	for each row execute function keep_column_name();

-- One column of a board is where the clock starts: said at the end of a statement, so that two can change places in one.
drop index board_column_commitment;
alter table board_column add constraint board_column_commitment
	exclude using gist (board_id with =) where (commitment) deferrable initially immediate;
