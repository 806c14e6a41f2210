import { calendarDays, workingDays, type DayCount } from '../../../core/calendar/day-count.ts';
import { dayText, mondayOf, parseDay } from '../../../core/calendar/days.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { flowFigures, type FlowFigures } from '../../../core/flow/figures.ts';
import { cardReport, type CardReport } from '../../../core/flow/report.ts';
import type { BoardHead } from '../../../core/board/view.ts';
import { dayAsked, rangeWithin } from '../asked.ts';
import { rows } from '../database.ts';
import { now } from '../time.ts';
import { boardFold } from './fold.ts';
import { boardFile } from './history.ts';
import { rotaOf } from './rota.ts';

export interface FlowPage extends FlowFigures {
	today: string;
	days: 'calendar' | 'working';
	/** Titles of the cards that the figures name. */
	titles: Record<string, string>;
}

const DEFAULT_WEEKS = 13;

/**
 * The flow figures of a board over a range of days; thirteen weeks up to today unless the range is given.
 * @throws Problem 422 when a day of the range cannot be read or the range runs backwards
 */
export async function flowPage(
	head: BoardHead,
	range: { from: string | null; to: string | null; days: string | null },
): Promise<FlowPage> {
	const at = now().getTime();
	const board = boardFile(head);
	const today = board.zone.day(at);
	const last = dayAsked(range.to, 'to') ?? today;
	const first = dayAsked(range.from, 'from') ?? mondayOf(Math.min(last, today)) - 7 * (DEFAULT_WEEKS - 1);
	const [from, to] = rangeWithin(first, last);
	const days = range.days === 'working' ? 'working' : 'calendar';
	const [{ flow }, count] = await Promise.all([
		boardFold(head),
		days === 'working' ? workingDaysOf(head) : calendarDays,
	]);
	const figures = flowFigures(board, flow, at, from, to, count);
	return { ...figures, today: dayText(today), days, titles: await titlesOf(head, figures) };
}

/** How each card that was finished in a range flowed, as `measure` prints it. */
export async function finishedCards(
	head: BoardHead,
	{ from, to, days }: Pick<FlowPage, 'from' | 'to' | 'days'>,
): Promise<CardReport[]> {
	const board = boardFile(head);
	const [{ flow }, count] = await Promise.all([
		boardFold(head),
		days === 'working' ? workingDaysOf(head) : calendarDays,
	]);
	const cards = flow.finishedIn(parseDay(from)!, parseDay(to)!);
	return cards.map((life) => cardReport(life, board, now().getTime(), count));
}

/** Days on which the team works, whoever is away. */
async function workingDaysOf(head: BoardHead): Promise<DayCount> {
	const rota = await rotaOf(head.teamId);
	return workingDays((day) => teamWorks(rota, day));
}

async function titlesOf(head: BoardHead, figures: FlowFigures): Promise<Record<string, string>> {
	const number = (card: string) => Number(card.slice(head.key.length + 1));
	const named = new Set([
		...figures.finished.map((card) => card.card),
		...figures.report.ageing.map((age) => age.card),
		...figures.standing.flat(),
	]);
	const titles = await rows<{ number: number; title: string }>(
		'select number, title from card where board_id = $1 and number = any($2)',
		[head.id, [...named].map(number)],
		'flow-titles',
	);
	return Object.fromEntries(titles.map((card) => [`${head.key}-${card.number}`, card.title]));
}
