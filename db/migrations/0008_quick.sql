-- Up Migration

-- What makes long histories quick: every list and every key that is followed has its index.
create extension if not exists pg_trgm;

-- Words of titles, anywhere in them; and cards by their number alone.
create index card_title on card using gin (title gin_trgm_ops);
create index card_number on card (number);

-- What a board shows, without the long tail of what is done.
create index card_open on card (board_id) where archived_at is null and clock <> 'done';

create index time_entry_of_card on time_entry (card_id);
create index command_card_card on command_card (card_id);
create index event_command on event (command_id);
create index event_void_command on event_void (command_id);
create index stay_card on stay (card_id);
create index blockage_card on blockage (card_id);
create index card_label_label on card_label (label_id);
create index command_undone on command (undone_by) where undone_by is not null;
create index board_person_person on board_person (person_id);
create index dismissal_person on dismissal (person_id);
create index sprint_settled_by on sprint (settled_by) where settled_by is not null;
