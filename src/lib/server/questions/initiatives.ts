import { fsum } from 'd3-array';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import { when, windowBefore, WINDOW_DAYS } from '../../../core/forecast/throughput.ts';
import type { InitiativeFigures, InitiativePart } from '../../../core/pages/panorama.ts';
import { tidy } from '../../../core/sums.ts';
import { rows } from '../database.ts';
import { inTurns } from '../turns.ts';
import type { SprintAccounts } from '../../../core/sprint/accounts.ts';
import type { Person } from '../sign-in.ts';
import { foldHeads } from './board-head.ts';
import { accountsOf } from './fold.ts';

const SURE = 0.85;

interface Row extends Omit<InitiativeFigures, 'parts' | 'cards' | 'finished' | 'doneBy' | 'begun'> {
	/** Its leaf cards by board: numbers of the open ones and of the done ones. */
	on: {
		board: string;
		slug: string;
		key: string;
		open: number[];
		done: number[];
		undated: number;
		/** The days on which the first of them was begun, and on which the first came to be. */
		begun: string | null;
		first: string;
	}[];
	/** How many were finished on each of the last days. */
	finished: { day: string; cards: number }[];
}

/** All hours that were ever worked on an initiative, in SQL: by way of its cards, however much was worked on others. */
export const WORKED_ON = (initiative: string) => `(select coalesce(sum(hours), 0) from time_entry
	where withdrawn_at is null and card_id = any(array(select id from card where initiative_id = ${initiative})))`;

/** All that is left of an initiative on boards in hours, in SQL. */
export const LEFT_ON = (initiative: string) => `(select coalesce(sum(k."left"), 0) from card k
	join board u on u.id = k.board_id and u.unit = 'hours'
	where k.initiative_id = ${initiative} and k.archived_at is null)`;

/** Cards that count: parents are the sums of their parts, and what was put away undone is gone. */
export const COUNTS = `(c.archived_at is null or c.clock = 'done')
	and not exists (select from card k where k.parent_id = c.id and k.archived_at is null)`;

/**
 * Initiatives of a team with their figures, as far as boards may be seen. What is burned and left is read from the
 * histories of the boards, what was worked from logged time alone, as in every account.
 * @param which ids of those that are meant; null for all that are offered
 * @param boards last parts of the addresses of boards on which their cards are likely to lie
 */
export async function initiativesOf(
	person: Person,
	team: string,
	today: Day,
	zone: string,
	which: readonly string[] | null,
	boards: readonly string[] = [],
): Promise<InitiativeFigures[]> {
	const foldsOf = async (slugs: readonly string[]): Promise<[string, SprintAccounts['cards']][]> =>
		Promise.all(
			[...(slugs.length ? await foldHeads(person, slugs) : [])].map(
				async ([slug, head]): Promise<[string, SprintAccounts['cards']]> => [
					slug,
					(await accountsOf(head)).cards,
				],
			),
		);
	// What boards are known to be asked for is folded meanwhile.
	const begun = foldsOf(boards);
	begun.catch(() => undefined);
	const found = await rows<Row>(
		`with seen as materialized (
			select b.id, b.slug, b.key, b.position, r.role from board b
			join board_right r on r.board_id = b.id and r.person_id = $1
			where b.team_id = $2 and (b.away_at is null or $3::uuid[] is not null)
		), meant as materialized (
			select i.* from initiative i join seen s on s.id = i.board_id
			where case when $3::uuid[] is null then i.retired_at is null else i.id = any($3) end
		), leaf as materialized (
			select c.initiative_id, c.board_id, c.number, c.clock, c.start, c.due, c.created_at, c.started_at, c.finished_at
			from meant m join card c on c.initiative_id = m.id join seen s on s.id = c.board_id
			where ${COUNTS}
		), on_board as materialized (
			select l.initiative_id, l.board_id,
				coalesce(array_agg(l.number) filter (where l.clock <> 'done'), '{}') as open,
				coalesce(array_agg(l.number) filter (where l.clock = 'done'), '{}') as done,
				count(*) filter (where l.clock <> 'done' and coalesce(l.start, l.due) is null) as undated,
				(min(l.started_at) at time zone $5)::date::text as begun, (min(l.created_at) at time zone $5)::date::text as first
			from leaf l group by 1, 2
		), lately as materialized (
			select initiative_id, (finished_at at time zone $5)::date as day, count(*) as cards from leaf
			where clock = 'done' and finished_at > $4::date - ${WINDOW_DAYS + 2} group by 1, 2
		), entry as materialized (
			select m.id, m.budget_money is not null as priced, t.person_id, t.day, t.hours
			from meant m
			join card c on c.initiative_id = m.id
			join seen s on s.id = c.board_id
			join time_entry t on t.card_id = c.id and t.withdrawn_at is null
		), worked as materialized (
			select id, sum(hours) as hours from entry group by 1
		), cost as materialized (
			select e.id, sum(e.hours * h.rate) as cost
			from entry e
			cross join lateral (
				select rate from hourly_rate where team_id = $2 and person_id = e.person_id and from_day <= e.day
				order by from_day desc limit 1
			) h
			where e.priced and exists (
				select from membership where team_id = $2 and person_id = $1 and left_at is null and role = 'lead')
			group by 1
		)
		select m.id, m.name, m.board_id as board, m.wide, m.retired_at is not null as retired, m.stage, m.let_through as "letThrough",
			m.lead_id as lead, m.purpose, m.start::text, m.target::text, m.budget_hours as hours, m.budget_money as money,
			coalesce(w.hours, 0) as worked, o.cost,
			(select coalesce(json_agg(json_build_object('board', s.id, 'slug', s.slug, 'key', s.key, 'open', o.open, 'done', o.done,
				'undated', o.undated, 'begun', o.begun, 'first', o.first) order by s.id <> m.board_id, s.position), '[]')
			from on_board o join seen s on s.id = o.board_id where o.initiative_id = m.id) as on,
			(select coalesce(json_agg(json_build_object('day', y.day, 'cards', y.cards)), '[]') from lately y where y.initiative_id = m.id) as finished
		from meant m
		left join worked w on w.id = m.id
		left join cost o on o.id = m.id
		order by m.target nulls last, m.name`,
		[person.id, team, which, dayText(today), zone],
		'initiatives',
	);
	const slugs = [...new Set(found.flatMap(({ on }) => on.map(({ slug }) => slug)))];
	const others = slugs.filter((slug) => !boards.includes(slug));
	const folds = new Map([...(await begun), ...(await foldsOf(others))]);
	for (const { on } of found) for (const one of on) await inTurns(folds.get(one.slug)!.reach(keysOf(one)));
	return found.map(({ on, finished, ...row }) => {
		const first = earliest(on.map((one) => one.first));
		const parts = on.map((one): InitiativePart => {
			const cards = folds.get(one.slug)!;
			let [burned, left] = [0, 0];
			for (const number of [...one.open, ...one.done])
				burned += cards.get(`${one.key}-${number}`)?.burned ?? 0;
			for (const number of one.open) left += cards.get(`${one.key}-${number}`)?.left ?? 0;
			return {
				board: one.board,
				cards: one.open.length + one.done.length,
				done: one.done.length,
				burned: tidy(burned),
				left: tidy(left),
			};
		});
		const sum = (of: (part: InitiativePart) => number) => fsum(parts, of);
		const cards = {
			all: sum((part) => part.cards),
			done: sum((part) => part.done),
			undated: fsum(on, ({ undated }) => undated),
		};
		const counts = new Map(finished.map(({ day, cards: n }) => [parseDay(day)!, n]));
		const window = first === null ? null : windowBefore(counts, parseDay(first)!, today);
		const days =
			window && cards.all > cards.done ? when(window.counts, cards.all - cards.done, [SURE])[0]! : null;
		return {
			...row,
			begun: earliest(on.map((one) => one.begun)),
			worked: tidy(row.worked),
			cards,
			parts,
			finished: fsum([...counts], ([day, one]) => (day < today && day >= today - WINDOW_DAYS ? one : 0)),
			doneBy: days === null ? null : dayText(today + days),
		};
	});
}

function* keysOf({ key, open, done }: Row['on'][number]): Generator<string> {
	for (const number of open) yield `${key}-${number}`;
	for (const number of done) yield `${key}-${number}`;
}

const earliest = (days: readonly (string | null)[]): string | null =>
	days.reduce((first, day) => (day !== null && (first === null || day < first) ? day : first), null);
