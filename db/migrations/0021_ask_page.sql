-- Up Migration

-- What a board’s ask page asks, and where what is asked for lands; null where it has none.
alter table board add ask_page jsonb;

-- Who asked for it on the ask page: they see its way and its talk, though they may not see the board, unless it is private.
alter table card add asker_id uuid references person;
create index card_asker on card (asker_id, created_at desc) where asker_id is not null;
