import { TZDate } from '@date-fns/tz';
import { parseDay } from '../../../core/calendar/days.ts';
import {
	asItStood,
	TOLD_BY,
	withPartsThen,
	type PastEvent,
	type StoodOn,
} from '../../../core/board/stood.ts';
import { shownTo } from '../../../core/board/private.ts';
import type { BoardHead, CardView, ColumnView, StoodPage } from '../../../core/pages/board.ts';
import { columnwise } from '../../columnwise.ts';
import { rows } from '../database.ts';
import { Problem } from '../problem.ts';
import { now } from '../time.ts';
import { cardViews } from './card-view.ts';
import { boardFile } from './history.ts';

/** Finished cards stood on a continuous board for this long. */
const DONE_DAYS = 14;

/**
 * A moment that an address asks for: `2026-11-05T14:00`, on the clock of the board, or an instant in full.
 * @throws Problem 422 when it is no moment, or has not been yet
 */
export function momentAsked(head: BoardHead, text: string): number {
	const local = /^(\d{4})-(\d{2})-(\d{2})(?:T([01]\d|2[0-3]):([0-5]\d))?$/.exec(text);
	let at = NaN;
	if (local && parseDay(text.slice(0, 10)) !== null) {
		const [year, month, date, hours = 23, minutes = 59] = local
			.slice(1)
			.map((part) => (part ? Number(part) : undefined));
		at = new TZDate(year!, month! - 1, date!, hours, minutes, head.timeZone).getTime();
		// A day that is not over is meant up to now.
		const begins = new TZDate(year!, month! - 1, date!, head.timeZone).getTime();
		if (local[4] === undefined && begins <= now().getTime()) at = Math.min(at, now().getTime());
	} else if (/^\d{4}-\d{2}-\d{2}T.*Z$/.test(text)) at = Date.parse(text);
	if (Number.isNaN(at))
		throw new Problem(
			422,
			'invalid.at',
			`“${text.slice(0, 40)}” is not a moment such as 2026-11-05T14:00.`,
			'at',
		);
	if (at > now().getTime())
		throw new Problem(
			422,
			'at.future',
			'That moment has not been yet: a board is shown as it stood before now.',
			'at',
		);
	return at;
}

/** A board as it stood at a moment: its cards then, from their history, and where they stand now. */
export async function boardStood(head: BoardHead, at: number): Promise<StoodPage> {
	const file = boardFile(head);
	const moment = new Date(at);
	const sprints = head.sprints.map((sprint) => ({
		...sprint,
		startedAt: sprint.startedAt && Date.parse(sprint.startedAt) <= at ? sprint.startedAt : null,
		closedAt: sprint.closedAt && Date.parse(sprint.closedAt) <= at ? sprint.closedAt : null,
	}));
	const doneSince = doneFrom(head, sprints, at);
	const [found] = await rows<{
		cards: CardView[] | null;
		events: Record<string, [string, number, string, PastEvent['before'], PastEvent['after']][]>;
		columns: { id: string; name: string; position: number; kind: string }[];
		initiatives: Record<string, string>;
		set: { before: Partial<ColumnView>; after: Partial<ColumnView> }[];
	}>(
		`with stood as materialized (
			select s.card_id as id
			from board_column k
			join stay s on s.column_id = k.id
			where k.board_id = $1 and s.entered_at <= $2 and (s.left_at is null or s.left_at > $2)
				and (k.kind <> 'done' or s.entered_at >= $3)
		), there as materialized (
			select id from stood
			union
			select c.id from card c join stood on c.parent_id = stood.id
		)
		select (select json_agg(v) from (${cardViews('select id from there')}) v) as cards,
			(select coalesce(json_object_agg(card_id, events), '{}') from (
				select e.card_id, json_agg(json_build_array(e.kind, round(extract(epoch from e.at) * 1000), e.value, e.before, e.after)
					order by e.at, coalesce(e.stands_for, e.seq)) as events
				from event e
				where e.card_id = any(array(select id from there)) and e.kind = any($4)
					and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)
				group by 1
			) told) as events,
			(select json_agg(json_build_object('id', id, 'name', name, 'position', position, 'kind', kind) order by position)
			from board_column where board_id = $1) as columns,
			(select coalesce(json_object_agg(i.id, i.name), '{}') from board b join board o on o.team_id = b.team_id
				join initiative i on i.board_id = o.id where b.id = $1) as initiatives,
			(select coalesce(json_agg(json_build_object('before', e.before, 'after', e.after) order by e.at desc, e.seq desc), '[]')
			from event e
			where e.board_id = $1 and e.card_id is null and e.kind = 'column-changed' and e.at > $2
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as set`,
		[head.id, moment, doneSince, TOLD_BY],
		'board-stood',
	);
	const on: StoodOn = {
		layout: file,
		// Both are in the order of their places; of those that share one, the one that stands comes first.
		columns: file.columns.map(({ name }) => found!.columns.find((column) => column.name === name)!.id),
		unit: head.unit,
		sprints: file.sprints,
		people: new Map(head.people.map(({ id, name }) => [name, id])),
		initiatives: new Map(Object.entries(found!.initiatives)),
	};
	const all = (found!.cards ?? []).flatMap((card) => {
		const events = (found!.events[card.id] ?? []).map(([kind, when, value, before, after]) => ({
			kind,
			at: when,
			value,
			before,
			after,
		}));
		const then = asItStood(card, events, at, on);
		return then ? [{ now: card, then }] : [];
	});
	const thens = all.map(({ then }) => then);
	const shown = all.filter(
		({ then }) =>
			then.column !== null && (then.clock !== 'done' || Date.parse(then.finished!) >= doneSince.getTime()),
	);
	const gone = new Set(head.retired.map(({ name }) => name));
	const used = new Set(shown.map(({ then }) => then.column));
	return {
		at: moment.toISOString(),
		head: {
			...head,
			role: 'viewer',
			sprints,
			columns: [
				...head.columns.map((column) => asSet(column, found!.set)),
				...found!.columns
					.filter(({ id, name }) => gone.has(name) && used.has(id))
					.map(({ id, name, kind, position }) => ({
						...head.columns[0]!,
						...{ id, name, position, kind: kind as 'queue', limit: null, policy: '', commitment: false },
						...{ hidden: false, was: [] },
					})),
			].sort((a, b) => a.position - b.position),
		},
		board: {
			seq: 0,
			cards: columnwise(
				shown
					.map(({ then }) => shownTo(withPartsThen(then, thens), head.me))
					.sort((a, b) => (a.rank < b.rank ? -1 : 1)),
			),
			expectation: null,
			doneSince: doneSince.toISOString(),
			backlog: 0,
		},
		went: Object.fromEntries(
			shown.flatMap(({ now: card, then }) =>
				card.archived
					? [[card.id, 'the archive']]
					: card.column === then.column
						? []
						: [[card.id, head.columns.find(({ id }) => id === card.column)?.name ?? 'the backlog']],
			),
		),
	};
}

/** A column as it was set before it was changed since: the latest change comes first. */
function asSet(
	column: ColumnView,
	changes: readonly { before: Partial<ColumnView>; after: Partial<ColumnView> }[],
): ColumnView {
	let then = column;
	for (const { before, after } of changes) if (after.name === then.name) then = { ...then, ...before };
	return then;
}

/** From when on finished cards stood on the board at a moment. */
function doneFrom(head: BoardHead, sprints: BoardHead['sprints'], at: number): Date {
	const DAY = 86_400_000;
	if (head.sprintDays === null) return new Date(at - DONE_DAYS * DAY);
	const kept = sprints.filter(
		({ startedAt, closedAt }) => startedAt && (!closedAt || Date.parse(closedAt) + head.doneDays * DAY > at),
	);
	const first = Math.min(...kept.map(({ startedAt }) => Date.parse(startedAt!)));
	if (Number.isFinite(first)) return new Date(first);
	const closed = Math.max(...sprints.flatMap(({ closedAt }) => (closedAt ? [Date.parse(closedAt)] : [])));
	return new Date(Number.isFinite(closed) ? closed + 1 : at - DONE_DAYS * DAY);
}
