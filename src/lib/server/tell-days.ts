import { dayText, parseDay } from '../../core/calendar/days.ts';
import { teamWorks } from '../../core/calendar/team-days.ts';
import { zoneOf } from '../../core/calendar/zone.ts';
import { isNear } from '../../core/notices/days.ts';
import { MOST_BEFORE, wayOf, type NoticeChoices, type NoticeKind } from '../../core/notices/kinds.ts';
import { rows } from './database.ts';
import { NEW_SECRET, queueLetter } from './mail/post.ts';
import { mailOn } from './mail/settings.ts';
import { boardHead } from './questions/board-head.ts';
import { planPage } from './questions/plan.ts';
import { rotaOf } from './questions/rota.ts';
import { sprintParts } from './questions/sprint-parts.ts';
import { now } from './time.ts';

/** A day that concerns somebody. */
interface Dated {
	person: string;
	board: string;
	card: string | null;
	team: string;
	zone: string;
	what: 'due' | 'review' | 'sprint' | 'over-promise';
	day: string;
	notices: NoticeChoices;
}

/** So far ahead are days looked at: as many working days as somebody can choose, and what lies between them. */
const AHEAD_DAYS = MOST_BEFORE * 3;
/** What has been late for longer was told when it became so. */
const BACK_DAYS = 40;

/**
 * Tells people of days: of a card of theirs, or of a review, that is due soon by their own choice, or late; those who lead a
 * team, of a sprint that is past its end; those who hold more of a running sprint than their hours promise, of that. Of each day they are told once, however often this is done and by how many at once.
 * @returns how many notices were written
 */
export async function tellOfDays(): Promise<number> {
	const at = now();
	const found = await rows<Dated>(
		`with near as (
			select c.id as card, c.board_id as board, o.person_id as person, 'due' as what, c.due as day
			from card c join card_owner o on o.card_id = c.id
			where c.due between $1::date - ${BACK_DAYS} and $1::date + ${AHEAD_DAYS} and c.clock <> 'done' and c.archived_at is null
			union all
			select c.id, c.board_id, c.reviewer_id, 'review', c.review_by
			from card c
			where c.review_by between $1::date - 1 and $1::date + ${AHEAD_DAYS} and c.clock <> 'done' and c.archived_at is null
			union all
			select null, s.board_id, m.person_id, 'sprint', s.ends
			from sprint s
			join board b on b.id = s.board_id
			join membership m on m.team_id = b.team_id and m.role = 'lead' and m.left_at is null
			where s.started_at is not null and s.closed_at is null and s.ends between $1::date - ${BACK_DAYS} and $1::date
		)
		select n.person, n.board, n.card, b.team_id as team, t.time_zone as zone, n.what, n.day::text, p.notices
		from near n
		join board b on b.id = n.board and b.away_at is null
		join team t on t.id = b.team_id and t.away_at is null
		join board_right r on r.board_id = n.board and r.person_id = n.person
		join person p on p.id = n.person
		left join card c on c.id = n.card
		where c.id is null or may_see(c, n.person)`,
		[dayText(zoneOf('UTC').day(at.getTime()))],
		'days-near',
	);
	found.push(...(await overPromise()));
	const rotas = new Map<string, Awaited<ReturnType<typeof rotaOf>>>();
	for (const { team } of found) if (!rotas.has(team)) rotas.set(team, await rotaOf(team));
	const told = found.flatMap((one) => {
		const kind = kindOf(one, rotas.get(one.team)!, at);
		const way = kind ? wayOf(one.notices, kind, one.board) : 'none';
		return way === 'none'
			? []
			: [{ person: one.person, board: one.board, card: one.card, day: one.day, kind, mail: way === 'mail' }];
	});
	if (!told.length) return 0;
	const [written] = await rows<{ n: number }>(
		`with told as (
			insert into notice (person_id, board_id, card_id, seqs, kinds, day, at)
			select person, board, card, '{}', array[kind], day, $2
			from jsonb_to_recordset($1) n(person uuid, board uuid, card uuid, day date, kind text)
			on conflict do nothing
			returning id, person_id, board_id, card_id, kinds[1] as kind
		), posted as (
			insert into mail (kind, person_id, notices, secret, made_at)
			select 'notice', t.person_id, array[t.id], ${NEW_SECRET}, $2
			from told t
			join jsonb_to_recordset($1) n(person uuid, board uuid, card uuid, kind text, mail boolean)
				on n.person = t.person_id and n.board = t.board_id and n.card is not distinct from t.card_id and n.kind = t.kind
			where $3 and n.mail
			returning id
		), queued as (select ${queueLetter('0')} from posted), heard as (
			select pg_notify('harrow', 'notice ' || person_id) from (select distinct person_id from told) p
		)
		select (select count(*) from told) as n, (select count(*) from heard) as heard, (select count(*) from queued) as queued`,
		[JSON.stringify(told), at, mailOn()],
		'days-told',
	);
	return written!.n;
}

/** What somebody is told of a day today; null for nothing. */
function kindOf(
	{ what, day, zone, notices }: Dated,
	rota: Awaited<ReturnType<typeof rotaOf>>,
	at: Date,
): NoticeKind | null {
	const today = zoneOf(zone).day(at.getTime());
	const on = parseDay(day)!;
	if (what === 'over-promise') return today <= on ? 'over-promise' : null;
	if (what === 'sprint') return today > on ? 'sprint-over' : null;
	if (today > on) return what === 'due' ? 'late' : null;
	const near = isNear((one) => teamWorks(rota, one), today, on, notices.before ?? 1);
	return near ? (what === 'due' ? 'due' : 'review-due') : null;
}

/** Who holds more of a running sprint than their hours promise: they are told once a sprint. */
async function overPromise(): Promise<Dated[]> {
	const running = await rows<{ slug: string; team: string; zone: string; lead: string }>(
		`select b.slug, b.team_id as team, t.time_zone as zone, m.person_id as lead
		from sprint s
		join board b on b.id = s.board_id and b.away_at is null and b.unit = 'hours'
		join team t on t.id = b.team_id and t.away_at is null
		cross join lateral (
			select person_id from membership where team_id = t.id and role = 'lead' and left_at is null order by person_id limit 1
		) m
		where s.started_at is not null and s.closed_at is null`,
		[],
		'sprints-running',
	);
	const over: Dated[] = [];
	for (const { slug, team, zone, lead } of running) {
		const head = await boardHead({ id: lead, name: '', initials: '', email: '', scope: 'read' }, slug);
		const sprint = head.sprints.find(({ startedAt, closedAt }) => startedAt && !closedAt);
		if (!sprint) continue;
		const plan = await planPage(head, sprint.number);
		const held = plan.cards.filter(({ clock }) => clock !== 'done');
		const people = sprintParts(head, plan, sprint, held).filter(({ standing }) => standing === 'over');
		if (!people.length) continue;
		const chosen = await rows<{ id: string; notices: NoticeChoices }>(
			'select id, notices from person where id = any($1::uuid[])',
			[people.map(({ person }) => person)],
			'notices-of',
		);
		for (const { id, notices } of chosen)
			over.push({
				...{ person: id, board: head.id, card: null, team, zone, notices },
				...{ what: 'over-promise', day: sprint.ends },
			});
	}
	return over;
}
