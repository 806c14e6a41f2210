import { generateNKeysBetween } from 'fractional-indexing';
import { ArrayUnique, IsIn, IsString, MaxLength } from 'class-validator';
import { archive } from '../../../../core/flow/clock.ts';
import { REASONS, type Reason } from '../../../../core/events/reasons.ts';
import { DECISIONS, type Decision } from '../../../../core/sprint/settle.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow, SprintRow } from '../../door/contexts.ts';
import { Entries, Id, Line, Lines, Optional, SprintNumber, Version } from '../../door/fields.ts';
import { makeCards, type Draft } from '../card/make-cards.ts';
import { clockIn, clockOf, placeBounds, writePlaces, type Placing } from '../card/place.ts';
import { keepAhead } from './keep-ahead.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';

const CODES = Object.keys(REASONS) as Reason[];

/** What happens to one card that was not finished, and why it was not. */
export class CardDecision {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@IsIn(DECISIONS, { message: 'The decision must be carry, split, backlog or drop.' })
	decision!: Decision;

	@IsIn(CODES, { message: `The reason must be one of: ${CODES.join(', ')}.` })
	reason!: Reason;

	/** The reason in one’s own words; needed where the reason is other. */
	@Optional()
	@MaxLength(300, { message: 'The words of a reason may have at most 300 characters.' })
	@IsString({ message: 'The words of a reason must be text.' })
	words?: string;

	/** Of a split: what the finished part is called from now on; left out to keep its title. */
	@Optional()
	@Line('The title of the finished part', 300)
	finished?: string;

	/** Of a split: what the new card with the rest is called. */
	@Optional()
	@Line('The title of the new card', 300)
	title?: string;

	/** Of a split: the checklist lines that go along, by their ids. */
	@Optional()
	@Lines('checklist line', 200, 60)
	lines?: string[];

	/** Of a split: where the new card goes; onto the next sprint’s list unless said otherwise. */
	@Optional()
	@IsIn(['next', 'backlog'], { message: 'The rest goes to next or to backlog.' })
	to?: 'next' | 'backlog';
}

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

interface Decided extends CardDecision {
	row: CardRow;
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

const of = (decided: readonly Decided[], decision: Decision) =>
	decided.filter((one) => one.decision === decision);

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

/** Checks that each unfinished card, and no other, is decided, and that each decision can be carried out. */
function decide(
	sprint: number,
	cards: readonly CardRow[],
	unfinished: readonly CardRow[],
	said: ReadonlyMap<string, CardDecision>,
): Decided[] {
	const inSprint = new Map(cards.map((card) => [card.id, card]));
	for (const id of said.keys()) {
		const card = inSprint.get(id);
		if (!card)
			throw new Problem(
				409,
				'settle.not_in_sprint',
				`A card that was decided is not in sprint ${sprint} any more. Look at the others as they stand now.`,
				'decisions',
				{ card: id },
			);
		if (card.clock === 'done')
			throw new Problem(
				409,
				'settle.done',
				`Card ${card.number} was finished meanwhile: nothing has to be decided about it.`,
				'decisions',
				{ card: id },
			);
	}
	const undecided = unfinished.filter((card) => !said.has(card.id));
	if (undecided.length) {
		const named = undecided.slice(0, 6).map((card) => card.number);
		const more = undecided.length - named.length;
		throw new Problem(
			422,
			'settle.undecided',
			`${undecided.length === 1 ? 'A card is' : `${undecided.length} cards are`} still undecided: ${named.join(', ')}${more ? ` and ${more} more` : ''}. Decide each before sprint ${sprint} is closed.`,
			'decisions',
			{ cards: undecided.map((card) => card.id) },
		);
	}
	return unfinished.map((row) => {
		const one = { ...said.get(row.id)!, row };
		if (one.reason === 'other' && !one.words?.trim())
			throw new Problem(
				422,
				'settle.words',
				`Say in words why card ${row.number} was not finished.`,
				'words',
				{ card: row.id },
			);
		if (one.decision === 'split') splittable(one);
		return one;
	});
}

function splittable({ row, title }: Decided): void {
	if (!title?.trim())
		throw new Problem(
			422,
			'split.title',
			`Say what the new card with the rest of card ${row.number} is called.`,
			'title',
			{ card: row.id },
		);
	if (row.size !== null && row.left <= 0)
		throw new Problem(
			422,
			'split.nothing',
			`Nothing is left of card ${row.number}, so there is nothing to split off. Correct what is left, or finish it.`,
			'decision',
			{ card: row.id },
		);
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

/** Carried cards keep their column; only what is left of them comes into the next sprint. */
async function carry(
	context: BoardContext,
	decided: readonly Decided[],
	next: { id: string; number: number } | null,
): Promise<void> {
	if (!next || !decided.length) return;
	await context.tx.query(
		'update card set sprint_id = $2, unplanned = false, version = version + 1 where id = any($1::uuid[])',
		[decided.map(({ row }) => row.id), next.id],
	);
	for (const { row } of decided) context.note(row.id, 'sprint', String(next.number));
}

/** What goes back stands on top of the backlog, in the order in which it stood. */
async function putBack(context: BoardContext, decided: readonly Decided[]): Promise<void> {
	if (!decided.length) return;
	const moving = decided.filter(({ row }) => row.column_id !== null);
	const { above, under } = await placeBounds(context, null, null);
	const ranks = generateNKeysBetween(above, under, moving.length);
	await writePlaces(
		context,
		moving.map(({ row }, i) => ({ row, column: null, rank: ranks[i]!, clock: clockIn(context, row, null) })),
	);
	await context.tx.query('update card set sprint_id = null, unplanned = false where id = any($1::uuid[])', [
		decided.map(({ row }) => row.id),
	]);
	await context.changedNow(decided.filter(({ row }) => row.column_id === null).map(({ row }) => row));
	for (const { row } of decided) {
		context.note(row.id, 'sprint', '');
		if (row.column_id !== null)
			context.note(row.id, 'column', '', { column: context.placeName(row.column_id) });
	}
}

async function drop(context: BoardContext, decided: readonly Decided[]): Promise<void> {
	if (!decided.length) return;
	const why = ({ reason, words }: Decided) => (reason === 'other' ? words!.trim() : REASONS[reason]);
	await context.tx.query(
		`update card c
		set archived_at = $2, archived_reason = d.reason, clock = d.clock, sprint_id = null, unplanned = false, version = version + 1
		from jsonb_to_recordset($1) as d(id uuid, reason text, clock text)
		where c.id = d.id`,
		[
			JSON.stringify(
				decided.map((one) => ({
					id: one.row.id,
					reason: why(one),
					clock: archive(clockOf(context, one.row)).state,
				})),
			),
			context.at,
		],
	);
	for (const one of decided) context.note(one.row.id, 'archived', why(one));
}

/**
 * What was done of a split card is finished; what is left goes to a new card that is linked to it, with its owners,
 * labels, type and initiative, and with the checklist lines that were chosen.
 */
async function split(
	context: BoardContext,
	decided: readonly Decided[],
	next: { id: string; number: number } | null,
): Promise<void> {
	if (!decided.length) return;
	const { tx, board } = context;
	const { rows: about } = await tx.query<{ id: string; labels: string[]; initiative: string | null }>(
		`select c.id, i.name as initiative,
			array(select l.name from card_label k join label l on l.id = k.label_id where k.card_id = c.id) as labels
		from card c
		left join initiative i on i.id = c.initiative_id
		where c.id = any($1::uuid[])`,
		[decided.map(({ row }) => row.id)],
	);
	const known = new Map(about.map((one) => [one.id, one]));
	const along = ({ row, lines = [] }: Decided) => row.checklist.filter((line) => lines.includes(line.id));
	const drafts = decided.map((one): Draft => {
		const { labels, initiative } = known.get(one.row.id)!;
		return {
			title: one.title!,
			size: one.row.size === null ? null : one.row.left,
			class: one.row.class,
			labels,
			initiative,
			owners: one.row.owners,
			checklist: along(one),
			sprint: one.to === 'backlog' || !next ? null : next,
		};
	});
	const made = await makeCards(context, drafts, null);
	const done = board.columns.findIndex((column) => column.kind === 'done');
	const column = board.columns[done]!;
	const { above, under } = await placeBounds(context, column.id, undefined);
	const ranks = generateNKeysBetween(above, under, decided.length);
	for (const [i, one] of decided.entries()) {
		const { row } = one;
		const rest = made[i]!;
		if (row.type) context.note(rest.id, 'type', row.type);
		if (row.left) context.note(row.id, 'split', String(row.left), { size: row.size, left: row.left });
		context.note(row.id, 'split-to', String(rest.number));
		context.note(rest.id, 'split-from', String(row.number));
		if (one.finished && one.finished !== row.title)
			context.note(row.id, 'renamed', one.finished, { title: row.title });
		context.note(row.id, 'column', column.name, { column: context.placeName(row.column_id) });
	}
	await writePlaces(
		context,
		decided.map(({ row }, i): Placing => ({
			row,
			column: column.id,
			rank: ranks[i]!,
			clock: clockIn(context, row, column.id),
		})),
	);
	await tx.query(
		`with parts as (
			select * from jsonb_to_recordset($1) as p(id uuid, rest uuid, size numeric, title text, checklist jsonb, type text, parent uuid)
		), rests as (
			update card c set type = p.type, parent_id = p.parent from parts p where c.id = p.rest
		), links as (
			insert into card_link (from_id, to_id, kind) select id, rest, 'split' from parts
		)
		update card c
		set size = p.size, title = p.title, checklist = p.checklist, sprint_id = null, unplanned = false
		from parts p
		where c.id = p.id`,
		[
			JSON.stringify(
				decided.map((one, i) => ({
					id: one.row.id,
					rest: made[i]!.id,
					size: one.row.size === null ? null : Math.max(0, one.row.size - one.row.left),
					title: one.finished ?? one.row.title,
					checklist: one.row.checklist.filter((line) => !along(one).includes(line)),
					type: one.row.type,
					parent: one.row.parent_id,
				})),
			),
		],
	);
}
