-- Up Migration

-- What was put away of a board, the latest first.
create index card_archive on card (board_id, archived_at desc) where archived_at is not null;
