import { fsum } from 'd3-array';
import type { FlowFigures } from '$core/flow/figures';
import { waitingShare } from '$core/flow/figures';
import { count, daysWords, figure, list, shortDate } from '../words';

/** What the sentences are made from. */
type Said = Pick<
	FlowFigures,
	'from' | 'to' | 'columns' | 'report' | 'columnHours' | 'blockedHours' | 'expectation'
> & { blockedBy: readonly { reason: string; days: number }[] };

/** Of a column how many cards left it for the last time at which age, the ages rising. */
export type Shape = readonly (readonly [days: number, cards: number])[];

/** So many finished cards say something of how they go. */
const ENOUGH = 10;

/** Whether a process is steady: said only where no point signals a change. */
export function steadiness(flow: Said): string {
	const { xmr } = flow.report;
	if (!xmr) return 'too few whole weeks to say whether that is steady';
	if (!xmr.signals.length)
		return (flow.report.cycle?.n ?? 0) < ENOUGH
			? 'too few to say whether that is steady'
			: 'a steady process';
	const weeks = [...new Set(xmr.signals.map((signal) => signal.week.slice(5)))];
	return `not steady: ${weeks.length > 3 ? `${weeks.length} weeks say` : `${list(weeks)} ${weeks.length === 1 ? 'says' : 'say'}`} that something changed`;
}

/** Whether as many cards come as go, from arrivals and departures in the range. */
export function balance(flow: Said): string {
	const arrived = fsum(flow.report.days, (day) => day.arrived);
	const finished = fsum(flow.report.days, (day) => day.finished);
	const difference = arrived - finished;
	if (!arrived && !finished) return 'None came';
	if (Math.abs(difference) <= Math.max(1, 0.05 * finished)) return 'As many cards come as go';
	return difference > 0
		? `${count(difference, 'card')} more came than went`
		: `${count(-difference, 'card')} more went than came`;
}

/** What Little's law says of the range, in words. */
export function littlesWords(flow: Said): string {
	const law = flow.report.littlesLaw;
	if (!law || law.ratio === null) return 'No card was finished in this range.';
	if ((flow.report.cycle?.n ?? 0) < ENOUGH)
		return 'Too few were finished to set what is in hand against them.';
	const { meanWip, implied, ratio } = law;
	const said = `On average ${figure(meanWip)} cards were in hand; ${figure(implied)} would explain how fast they were finished`;
	if (ratio >= 0.8 && ratio <= 1.25) return `${said}: in balance.`;
	const arrived = fsum(flow.report.days, (day) => day.arrived);
	const uneven = Math.abs(arrived - law.throughputPerDay * flow.report.days.length) > 0.1 * arrived;
	return `${said}: ${ratio > 1 ? 'work piles up or grows old' : 'work in hand is being cleared'}${uneven ? ', as arrivals and departures differ' : ', as cards in hand grow older'}.`;
}

export function cycleWords(flow: Said): string {
	const { cycle } = flow.report;
	if (!cycle) return 'No card was finished in this range.';
	if (cycle.n === 1) return `The one card took ${count(cycle.p50, 'day')}.`;
	return `Half of ${cycle.n} cards took ${count(cycle.p50, 'day')} or fewer, 85% took ${cycle.p85} or fewer.`;
}

export function cumulativeWords(flow: Said): string {
	const [first, last] = [flow.report.days[0], flow.report.days.at(-1)];
	if (!first || !last) return 'There is no day in this range.';
	const change = last.wip - first.wip;
	return `${last.wip} in hand at the end${change === 0 ? ', as many as at the beginning' : `, ${Math.abs(change)} ${change > 0 ? 'more' : 'fewer'} than at the beginning`}.`;
}

export function weeksWords(flow: Said): string {
	const { xmr, weeks } = flow.report;
	if (!xmr) return `${count(weeks.length, 'whole week')} in this range; six are needed for natural limits.`;
	if (!xmr.mean) return 'No card was finished in a whole week of this range.';
	return `${figure(xmr.mean)} a week on average; anything up to ${figure(xmr.upper)} is the usual spread.`;
}

export function ageingWords(flow: Said): string {
	const { ageing } = flow.report;
	if (!ageing.length) return 'Nothing is in hand.';
	if (!flow.expectation)
		return `${count(ageing.length, 'card')} in hand; too few finished lately to compare with.`;
	const old = ageing.filter((age) => age.ageDays > flow.expectation!.days).length;
	return `${old ? `${old} of ${ageing.length}` : `None of ${ageing.length}`} in hand ${old === 1 ? 'is' : 'are'} older than the ${count(flow.expectation.days, 'day')} that ${flow.expectation.percentile}% took.`;
}

export function spentWords(flow: Said): string {
	const share = waitingShare(flow);
	if (share === null) return 'No finished card has spent time here yet.';
	const top = flow.blockedBy[0];
	return `${Math.round(share * 100)}% of the time nobody could work on them${top ? `; “${top.reason}” cost ${daysWords(top.days, 0)}` : ''}.`;
}

/** The sentence on top of the page: what range, how much, how steady, and where the time goes. */
export function flowSentence(flow: Said): {
	range: string;
	/** Null where no card was finished: then there is nothing that could be steady. */
	finished: string | null;
	steady: string;
	balance: string;
	waiting: number | null;
	most: string | null;
} {
	const n = flow.report.cycle?.n ?? 0;
	const weeks = flow.report.days.length / 7;
	let most: string | null = null;
	let hours = 0;
	flow.columns.forEach((column, i) => {
		if (column.kind === 'queue' && flow.columnHours[i]! > hours)
			[most, hours] = [column.name, flow.columnHours[i]!];
	});
	if (flow.blockedHours > hours) most = 'blocked cards';
	return {
		range: `${shortDate(flow.from)} to ${shortDate(flow.to)}`,
		finished: n ? `${count(n, 'card')} finished, ${figure(n / weeks)} a week` : null,
		steady: steadiness(flow),
		balance: balance(flow),
		waiting: waitingShare(flow),
		most,
	};
}

const cardsOf = (shape: Shape) => fsum(shape, ([, cards]) => cards);

/** Share of past cards still unfinished at an age: how wide the past shape of a column is there. */
export function shareOlder(shape: Shape, age: number): number {
	const all = cardsOf(shape);
	return all ? cardsOf(shape.filter(([days]) => days > age)) / all : 0;
}

/** The ages by which half and 85% of past cards had left a column, by nearest rank. */
export function shapeMarks(shape: Shape): { p: number; days: number }[] {
	const all = cardsOf(shape);
	return [50, 85].flatMap((p) => {
		let rank = Math.ceil((p * all) / 100);
		const found = shape.find(([, cards]) => (rank -= cards) <= 0);
		return found ? [{ p, days: found[0] }] : [];
	});
}
