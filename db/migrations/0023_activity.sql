-- Up Migration

-- What somebody has done, over all boards.
create index event_actor on event (actor_id, at);
