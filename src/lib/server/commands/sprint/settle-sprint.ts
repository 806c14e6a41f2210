import { ArrayUnique, IsIn, IsString, MaxLength } from 'class-validator';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, SprintRow } from '../../door/contexts.ts';
import { Entries, Id, Optional, SprintNumber, Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { CardDecision, decide, of, type Decided } from './decided.ts';
import { keepAhead } from './keep-ahead.ts';
import { split } from './settle-split.ts';
import { carry, drop, putBack } from './settle-unfinished.ts';

export class SettleSprint {
	@Id('board')
	board!: string;

	@SprintNumber()
	sprint!: number;

	/** The version of the sprint that the sender saw. */
	@Version()
	version!: number;

	/** One for every card of the sprint that is not done. */
	@ArrayUnique((one: CardDecision | null) => one?.card, { message: 'Decide each card once.' })
	@Entries('decisions', CardDecision, 1000, 0)
	decisions!: CardDecision[];

	/** Whether the goal was met. */
	@Optional()
	@IsIn(['yes', 'partly', 'no'], { message: 'The goal was met: yes, partly or no.' })
	goalMet?: 'yes' | 'partly' | 'no';

	/** The same in the team’s words. */
	@Optional()
	@MaxLength(1000, { message: 'The words on the goal may have at most 1,000 characters.' })
	@IsString({ message: 'The words on the goal must be text.' })
	goalWords?: string;
}

export const settleSprint = boardCommand({
	name: 'SettleSprint',
	summary:
		'Closes a sprint by deciding each unfinished card: carried, split, back to the backlog, or dropped. Can be taken back until the next sprint has started.',
	input: SettleSprint,
	async run(context, input) {
		const { tx, at } = context;
		await maySettle(context);
		const sprint = await toSettle(context, input);
		const { rows } = await tx.query<{ id: string }>(
			'select id from card where sprint_id = $1 and archived_at is null order by rank, number',
			[sprint.id],
		);
		const said = new Map(input.decisions.map((one) => [one.card, one]));
		const versions = rows.map(({ id }) => ({ card: id, version: said.get(id)?.version }));
		context.blind = true;
		const cards = await context.cards(versions);
		const unfinished = cards.filter((card) => card.clock !== 'done');
		const decided = decide(sprint.number, cards, unfinished, said);
		const next = await nextSprint(context, decided);

		// A done card's stay ends with the sprint; those on its list stand in no sprint any more until they are put into one.
		await tx.query(
			`update card set sprint_id = null, unplanned = false, version = version + 1 where id = any($1::uuid[])`,
			[cards.filter((card) => card.clock === 'done').map((card) => card.id)],
		);
		await carry(context, of(decided, 'carry'), next);
		await putBack(context, of(decided, 'backlog'));
		await drop(context, of(decided, 'drop'));
		await split(context, of(decided, 'split'), next);
		for (const { row, decision, reason, words = '' } of decided)
			context.note(row.id, 'unfinished', reason, null, {
				sprint: sprint.number,
				decision,
				words: words.trim(),
				left: row.left,
			});
		await tx.query(
			`update sprint set closed_at = $2, goal_met = $3, goal_words = $4, settled_by = $5, version = version + 1 where id = $1`,
			[sprint.id, at, input.goalMet ?? null, input.goalWords?.trim() ?? '', context.commandId],
		);
		context.note(null, 'sprint-settled', String(sprint.number), null, {
			done: cards.length - unfinished.length,
			unfinished: unfinished.length,
		});
		return {
			result: {
				sprint: sprint.number,
				done: cards.length - unfinished.length,
				carried: of(decided, 'carry').length,
				split: of(decided, 'split').length,
				returned: of(decided, 'backlog').length,
				dropped: of(decided, 'drop').length,
				next: next?.number ?? null,
			},
		};
	},
});

/** Leads settle; members do where the board lets them. */
async function maySettle(context: BoardContext): Promise<void> {
	if (context.role === 'lead') return;
	const { rows } = await context.tx.query<{ members_settle: boolean }>(
		'select members_settle from board where id = $1',
		[context.board.id],
	);
	if (!rows[0]!.members_settle)
		throw new Problem(403, 'right.missing', 'On this board only leads settle a sprint.');
}

async function toSettle(context: BoardContext, input: SettleSprint): Promise<SprintRow> {
	const sprint = await context.sprint(input.sprint);
	if (sprint.closed_at) {
		const { rows } = await context.tx.query<{ name: string }>(
			`select p.name from command k join person p on p.id = k.person_id where k.id = $1`,
			[sprint.settled_by],
		);
		throw new Problem(
			409,
			'sprint.settled',
			`Sprint ${sprint.number} is settled already${rows[0] ? `, by ${rows[0].name}` : ''}. Nothing of this was done.`,
			'sprint',
		);
	}
	if (!sprint.started_at)
		throw new Problem(
			409,
			'sprint.not_started',
			`Sprint ${sprint.number} has not started, so there is nothing to settle.`,
			'sprint',
		);
	// What somebody else changed of the sprint meanwhile, its goal or its end, changes what is settled.
	return context.sprint(input.sprint, input.version);
}

/** The sprint that takes what is carried: the next that has not started; one is made where the cadence has none ready. */
async function nextSprint(
	context: BoardContext,
	decided: readonly Decided[],
): Promise<{ id: string; number: number } | null> {
	const coming = (rows: SprintRow[]) => rows.find((sprint) => !sprint.started_at) ?? null;
	let rows = await context.sprintRows();
	if (!coming(rows) && context.board.sprintDays !== null) {
		const { rows: cadence } = await context.tx.query<{ sprint_weekday: number }>(
			'select sprint_weekday from board where id = $1',
			[context.board.id],
		);
		const today = zoneOf(context.board.timeZone).day(context.at.getTime());
		await keepAhead(
			context,
			{ days: context.board.sprintDays, weekday: cadence[0]!.sprint_weekday },
			rows,
			today,
		);
		rows = await context.sprintRows();
	}
	const next = coming(rows);
	const needs = decided.some(
		(one) => one.decision === 'carry' || (one.decision === 'split' && one.to !== 'backlog'),
	);
	if (!next && needs)
		throw new Problem(
			409,
			'sprint.none_next',
			'There is no next sprint to carry cards into. Set the cadence first, or send them back to the backlog.',
			'decisions',
		);
	return next;
}
