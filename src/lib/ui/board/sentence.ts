import { fsum } from 'd3-array';
import { laneOf } from '$core/board/lanes';
import type { CardView, ColumnView, LaneView, SprintView, Unit } from '$core/pages/board';
import type { Expectation } from '$core/flow/expectation';
import { parseDay } from '$core/calendar/days';
import type { Day } from '$core/calendar/zone';
import { leftOf } from '$core/board/left';
import { amount, count, daysSince, list } from '../words';

/** A run of words in the sentence on top of a board; to says what they lead to. */
export interface Words {
	text: string;
	tone?: 'strong' | 'warn' | 'care';
	to?: { blocked: true } | { card: number } | { outside: true } | { settle: true } | { place: string };
	/** Of a word of Harrow's own: what it means, with this board's own figure. */
	says?: string;
}

interface Board {
	columns: ColumnView[];
	lanes: readonly LaneView[];
	standing: ReadonlyMap<string, number>;
	cards: CardView[];
	expectation: Expectation | null;
	/** A moment of the past is looked at: how long cards took up to then is not said. */
	past?: boolean;
	sprint: SprintView | undefined;
	unit: Unit;
	today: Day;
	timeZone: string;
	/** Cards in its backlog. */
	backlog: number;
	/** Where its places are: `/boards/tidewatch`. */
	at: string;
	/** Where people are invited; null for those who may not. */
	invite: string | null;
	/** It has sprints, and none was started yet. */
	unstarted: boolean;
	mayEdit: boolean;
}

/** What a board says of itself in one or two plain sentences, made from what stands on it. */
export function boardSentence(board: Board): Words[] {
	if (!board.cards.length && !board.backlog) return beginning(board);
	return [
		...over(board),
		...slots(board),
		...blocked(board),
		...oldest(board),
		...leftOver(board),
		...outOfSight(board),
	];
}

/** A board without cards says what comes next. */
function beginning({ at, invite, unstarted, mayEdit, columns }: Board): Words[] {
	const words: Words[] = [{ text: 'This board is empty. ', tone: 'strong' }];
	if (!mayEdit) return words;
	const steps: Words[] = [{ text: 'add cards to the backlog', to: { place: `${at}/backlog` } }];
	if (invite) steps.unshift({ text: 'invite those you work with', to: { place: invite } });
	if (unstarted) steps.push({ text: 'plan the first sprint', to: { place: `${at}/plan` } });
	else
		steps.push({
			text: `pull the first into ${columns[0]?.name ?? 'its first column'}`,
			to: { place: `${at}/backlog` },
		});
	if (invite) steps.push({ text: 'make its columns yours', to: { place: `${at}/set-up` } });
	words.push({ text: 'Next: ' });
	steps.forEach((step, i) => words.push(step, { text: i < steps.length - 1 ? ', ' : '.' }));
	return words;
}

/** A sprint past its end says so until it is settled. */
function over({ sprint, today }: Board): Words[] {
	if (!sprint || parseDay(sprint.ends)! >= today) return [];
	return [
		{ text: `Sprint ${sprint.number} is over`, tone: 'warn' },
		{ text: ' and not settled: ' },
		{ text: 'settle it', to: { settle: true } },
		{ text: '. ' },
	];
}

/** Lanes that hold more than their limit. */
function lanesOver({ lanes, cards }: Board): Words[] {
	const over = lanes.flatMap((lane) => {
		const there = cards.filter((card) => card.clock !== 'done' && laneOf(lanes, card) === lane).length;
		return lane.limit !== null && there > lane.limit
			? `the lane ${lane.name} ${there - lane.limit} over`
			: [];
	});
	return over.length ? [{ text: list(over), tone: 'warn' }] : [];
}

function slots(board: Board): Words[] {
	const { columns, standing } = board;
	const limited = columns.filter((column) => column.limit !== null);
	const lanes = lanesOver(board);
	if (!limited.length) return lanes.length ? [{ text: 'Of its slots ' }, ...lanes, { text: '. ' }] : [];
	const all = fsum(limited, (column) => column.limit!);
	const taken = fsum(limited, (column) => standing.get(column.id) ?? 0);
	const over = limited.filter((column) => (standing.get(column.id) ?? 0) > column.limit!);
	const [first] = limited;
	const words: Words[] = [
		{ text: `${taken} of ${all} `, tone: 'strong' },
		{
			text: 'slots',
			tone: 'strong',
			says: `A slot is one unit of a limit: ${first!.name}, with a limit of ${first!.limit}, has ${first!.limit} of the ${all} here.`,
		},
		{ text: ' taken' },
	];
	if (over.length)
		words.push(
			{ text: ', ' },
			{
				text: list(over.map((column) => `${column.name} ${standing.get(column.id)! - column.limit!} over`)),
				tone: 'warn',
			},
		);
	if (lanes.length) words.push({ text: ', ' }, ...lanes);
	return [...words, { text: '. ' }];
}

function blocked({ cards, today, timeZone }: Board): Words[] {
	const days = cards.flatMap((card) =>
		card.blocked ? [Math.max(1, daysSince(card.blocked.since, today, timeZone))] : [],
	);
	if (!days.length) return [{ text: 'Nothing is blocked. ' }];
	const sorted = [...days].sort((a, b) => a - b);
	const same = sorted[0] === sorted.at(-1);
	const long =
		sorted.length > 1 && same
			? `${count(sorted[0]!, 'day')} each`
			: sorted.length === 1
				? count(sorted[0]!, 'day')
				: sorted.length < 4
					? `${list(sorted.map(String))} days`
					: `up to ${count(sorted.at(-1)!, 'day')}`;
	return [
		{ text: `${days.length} blocked`, tone: 'warn', to: { blocked: true } },
		{ text: `, for ${long}. ` },
	];
}

function oldest({ cards, expectation, past, today, timeZone }: Board): Words[] {
	const running = cards.filter((card) => card.clock === 'running' && card.started);
	const age = (card: CardView) => daysSince(card.started!, today, timeZone);
	const card = running.reduce<CardView | null>(
		(oldest, one) => (!oldest || age(one) > age(oldest) ? one : oldest),
		null,
	);
	if (!card) return [{ text: 'No card is being worked on. ' }];
	const words: Words[] = [
		{
			text: String(card.number),
			tone: expectation && age(card) > expectation.days ? 'warn' : 'care',
			to: { card: card.number },
		},
		{ text: ` is on day ${age(card)}` },
	];
	if (past) return [...words, { text: '. ' }];
	if (!expectation)
		return [
			...words,
			{ text: '; fewer than ten cards were finished in 90 days, too few to say how long one takes. ' },
		];
	return [
		...words,
		{ text: `; ${expectation.percentile}% of past cards took ${count(expectation.days, 'day')} or fewer. ` },
	];
}

/** Cards in columns that are not shown are not forgotten. */
function outOfSight({ columns, standing }: Board): Words[] {
	return columns.flatMap((column) => {
		const there = standing.get(column.id) ?? 0;
		if (!column.hidden || !there) return [];
		return [
			{
				text: ` ${count(there, 'card')} ${there === 1 ? 'stands' : 'stand'} in ${column.name}, which is hidden.`,
			},
		];
	});
}

function leftOver({ cards, sprint, unit }: Board): Words[] {
	if (!sprint || unit === 'none') return [];
	const mine = cards.filter((card) => card.sprint === sprint.number);
	const left = leftOf(mine);
	const outside = cards.filter(
		(card) => card.sprint !== sprint.number && card.clock !== 'done' && !card.parts,
	).length;
	const words: Words[] = [
		{ text: amount(left, unit), tone: 'strong' },
		{ text: ` left in sprint ${sprint.number}. ` },
	];
	if (outside)
		words.push({
			text: `${count(outside, 'card')} here ${outside === 1 ? 'is' : 'are'} in no sprint.`,
			to: { outside: true },
		});
	return words;
}
