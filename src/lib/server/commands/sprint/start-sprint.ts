import { fsum } from 'd3-array';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { dayText } from '../../../../core/calendar/days.ts';
import { givesFrom, rawHours } from '../../../../core/capacity/hours.ts';
import { Problem } from '../../problem.ts';
import { boardHead } from '../../questions/board-head.ts';
import { boardPast } from '../../questions/past.ts';
import { daysOf, promiseOf, workersOf } from '../../questions/promise.ts';
import { rotaOf } from '../../questions/rota.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, SprintNumber, Version } from '../../door/fields.ts';
import { bringIn } from '../card/place.ts';
import { keepAhead } from './keep-ahead.ts';

export class StartSprint {
	@Id('board')
	board!: string;

	@SprintNumber()
	sprint!: number;

	@Version()
	version!: number;

	/** Why its cards are let through over the limit of the first column. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const startSprint = boardCommand({
	name: 'StartSprint',
	summary: 'Starts a sprint: its cards come onto the board, and what was committed is frozen.',
	role: 'lead',
	input: StartSprint,
	async run(context, input) {
		const { tx, board, at } = context;
		const sprint = await context.sprint(input.sprint, input.version);
		const today = zoneOf(board.timeZone).day(at.getTime());
		if (sprint.started_at)
			throw new Problem(409, 'sprint.started', `Sprint ${sprint.number} has started already.`, 'sprint');
		if (board.runningSprint)
			throw new Problem(
				409,
				'sprint.running',
				`Sprint ${board.runningSprint.number} is still running on this board: it has to be settled before another one starts.`,
				'sprint',
			);
		if (sprint.ends < dayText(today))
			throw new Problem(
				409,
				'sprint.over',
				`Sprint ${sprint.number} would have ended on ${sprint.ends}. Give it other dates first.`,
				'sprint',
			);
		const { rows } = await tx.query<{ id: string }>(
			'select id from card where sprint_id = $1 and archived_at is null order by rank, number',
			[sprint.id],
		);
		const cards = await context.cards(rows.map(({ id }) => ({ card: id })));
		await bringIn(
			context,
			cards.filter((card) => card.column_id === null),
			input.reason,
		);
		const standing = cards.filter((card) => card.column_id !== null);
		if (standing.length) await context.changedNow(standing);
		for (const card of standing) context.note(card.id, 'committed', String(sprint.number));

		const head = await boardHead(context.person, board.slug);
		const { learned } = await boardPast(head);
		const rota = await rotaOf(board.team);
		const days = daysOf(head, sprint.number)!;
		const raw = Object.fromEntries(
			workersOf(head).map((person) => [
				person.id,
				rawHours(rota, person.id, board.id, givesFrom(days, today), days.to),
			]),
		);
		const dayHours = Array.from({ length: days.to - days.from + 1 }, (_, i) =>
			fsum(workersOf(head), (person) => rawHours(rota, person.id, board.id, days.from + i, days.from + i)),
		);
		const focus = sprint.focus ?? learned.focus;
		const keepBack = sprint.keep_back ?? learned.keepBack;
		await tx.query(
			`update sprint set started_at = $2, raw_hours = $3, focus = $4, keep_back = $5, day_hours = $6, version = version + 1 where id = $1`,
			[
				sprint.id,
				at,
				JSON.stringify(raw),
				Math.min(1, focus),
				Math.min(0.99, keepBack),
				JSON.stringify(dayHours),
			],
		);
		const committed = fsum(cards, (card) => card.left);
		context.note(null, 'sprint-started', String(sprint.number), null, { committed, focus, keepBack });
		if (board.sprintDays !== null) {
			const { rows: cadence } = await tx.query<{ sprint_weekday: number }>(
				'select sprint_weekday from board where id = $1',
				[board.id],
			);
			await keepAhead(
				context,
				{ days: board.sprintDays, weekday: cadence[0]!.sprint_weekday },
				await context.sprintRows(),
				today,
			);
		}

		// Nothing of this holds a start up; all of it is worth hearing.
		const total = fsum(Object.values(raw));
		const promise = board.unit === 'none' ? null : promiseOf(head, sprint.number, learned, total);
		const count = (n: number, one: string, many: string) => (n ? [`${n} ${n === 1 ? one : many}`] : []);
		const missing = [
			...(cards.length ? [] : ['no cards']),
			...(board.unit === 'none'
				? []
				: count(
						cards.filter((card) => card.size === null).length,
						'card without a size',
						'cards without a size',
					)),
			...count(
				cards.filter((card) => !card.owners.length).length,
				'card without an owner',
				'cards without an owner',
			),
			...count(cards.filter((card) => card.blocked_since).length, 'blocked card', 'blocked cards'),
			...(promise !== null && committed > promise + 1e-9 ? ['more work than is promised'] : []),
		];
		return {
			result: { sprint: sprint.number, committed, cards: cards.length },
			advice: missing.length ? `Sprint ${sprint.number} has started, with ${missing.join(', ')}.` : undefined,
		};
	},
});
