-- Up Migration

-- A letter that is to be sent, or was. What it says of cards is put together when it is sent, from what its reader may see then.
create table mail (
	-- Its Message-ID, however often it is sent.
	id uuid primary key default gen_random_uuid(),
	kind text not null check (kind in ('notice', 'digest', 'invitation', 'reset')),
	-- Whom it goes to; an invitation goes to an address that may be nobody's yet.
	person_id uuid references person,
	to_address text check (person_id is not null or to_address is not null),
	-- The team whose leads are shown whether it arrived, where it is about no person of theirs.
	team_id uuid references team,
	-- What it tells.
	notices uuid[] not null default '{}',
	-- As which kind it was sent: what its reader can stop.
	about text,
	-- What an invitation or a link to a new password says; taken away once it is sent, as its link lets somebody in.
	words jsonb,
	-- In the address to which answers go, and in the link by which one is sent no more such letters.
	secret text not null unique,
	made_at timestamptz not null,
	-- Since when somebody tries to send it: another one takes it up where that has been too long.
	claimed_at timestamptz,
	sent_at timestamptz,
	-- There is nothing left to say, or it cannot be sent; and why.
	dropped_at timestamptz,
	-- The mail server will not take it.
	refused boolean not null default false,
	trouble text,
	tries integer not null default 0
);
create index mail_person on mail (person_id, made_at desc);
create index mail_team on mail (team_id);
create index mail_waiting on mail (made_at) where sent_at is null and dropped_at is null;
-- Of a notice one letter waits at most: what else happens to the same card until it is sent stands in it.
create unique index mail_notice on mail ((notices[1])) where kind = 'notice' and sent_at is null and dropped_at is null;

-- When somebody was told of it by mail.
alter table notice add mailed_at timestamptz;
-- The last day, where they are, for which somebody was sent a digest.
alter table person add digest_day date;
-- Where an invitation was sent to.
alter table invitation add email text;
