import { fsum, group, rollup } from 'd3-array';
import type { LookBackPage, ReportCard, ReportPage, ReportShown } from '$core/pages/look-back';
import type { Unit } from '$core/pages/board';
import { REASONS } from '$core/events/reasons';
import type { Delivered } from '$core/sprint/delivered';
import type { Stint } from '$core/sprint/ledger';
import { median } from '$core/capacity/promise';
import { amount, count, figure, list } from '../words';

export const percent = (share: number | null) => (share === null ? 'none' : `${Math.round(share * 100)}%`);

/** What the burndown shows now, in one sentence. */
export function burndownWords(
	{ following, closed }: Pick<ReportPage, 'following' | 'closed'>,
	unit: Unit,
): string {
	const last = following.days.at(-1);
	if (!last) return 'No day of it has ended yet.';
	const by = last.left - last.guide;
	const where = closed ? 'were left at its close' : 'are left';
	if (Math.abs(by) < Math.max(0.5, following.committed * 0.03))
		return `${amount(last.left, unit)} ${where}, as the guide has it.`;
	return `${amount(last.left, unit)} ${where}, ${amount(Math.abs(by), unit)} ${by > 0 ? 'more' : 'less'} than the guide.`;
}

/** What the burn-up shows now, in one sentence. */
export function burnUpWords({ following }: Pick<ReportPage, 'following'>, unit: Unit): string {
	const last = following.days.at(-1);
	if (!last) return 'Nothing has been burned yet.';
	const change = last.scope - following.committed;
	const scope =
		Math.abs(change) < 0.005
			? 'the scope is what it was at the start'
			: `the scope is ${amount(Math.abs(change), unit)} ${change > 0 ? 'larger' : 'smaller'} than at the start`;
	return `${amount(last.burned, unit)} of ${amount(last.scope, unit)} burned; ${scope}.`;
}

/** What was delivered of what was committed, and what came in later and was delivered too: each beside its like. */
export function deliveredWords(of: Delivered, unit: Unit): string {
	const inCards = unit === 'none';
	const say = (n: number) => (inCards ? count(n, 'card') : amount(n, unit));
	const [kept, committed, all] = inCards
		? [of.keptCards, of.committedCards, of.cards]
		: [of.kept, of.committed, of.delivered];
	const later = all - kept;
	const were = kept === 1 && inCards ? 'was' : 'were';
	return `${inCards ? kept : figure(kept)} of the ${say(committed)} committed ${were} delivered${
		later > 0.005 ? `, and ${say(later)} that came in later` : ''
	}`;
}

const limitsOf = ({ velocity }: LookBackPage, unit: Unit) =>
	unit === 'none' ? velocity.cardLimits : velocity.limits;

/** What the last closed sprint delivered, and what is usual, in one sentence. */
export function lastSprintWords(page: LookBackPage, unit: Unit): string {
	const last = page.velocity.sprints.at(-1);
	if (!last) return 'No sprint has been closed yet.';
	const limits = limitsOf(page, unit);
	const usual = limits && `; between ${figure(limits.lower)} and ${figure(limits.upper)} is usual here`;
	return `In sprint ${last.number}, ${deliveredWords(last, unit)}${usual ?? ''}.`;
}

/** What velocity shows over all sprints, in a sentence or two. */
export function velocityWords(page: LookBackPage, unit: Unit): string {
	const { sprints } = page.velocity;
	const last = sprints.at(-1);
	if (!last) return 'No sprint has been closed yet.';
	const limits = limitsOf(page, unit);
	if (!limits) return 'Limits are drawn once six sprints are closed.';
	const inCards = unit === 'none';
	const mean = inCards ? count(Number(figure(limits.mean)), 'card') : amount(limits.mean, unit);
	const lately = inCards || last.mean3 === null ? '' : `, ${amount(last.mean3, unit)} of the last three`;
	const outside = limits.signals
		.filter((signal) => signal.rule === 'outside')
		.map((signal) => `sprint ${sprints[signal.index]!.number}`);
	return `The mean of ${count(sprints.length, 'sprint')} is ${mean}${lately}. ${
		limits.signals.length
			? outside.length
				? `${list(outside)} ${outside.length === 1 ? 'lies' : 'lie'} outside the limits.`
				: 'It has been shifting: see the figures.'
			: 'It is steady.'
	}`;
}

/** How reliable the sprints were, in one sentence. */
export function reliabilityWords({ velocity }: LookBackPage): string {
	const known = velocity.sprints.flatMap((sprint) => sprint.reliability ?? []);
	const last = known.slice(-6);
	const middle = median(last);
	if (middle === null) return 'Nothing was committed yet.';
	return `Of what was committed, ${percent(middle)} was delivered${
		last.length > 1 ? ` in the middle one of the last ${last.length} sprints` : ''
	}.`;
}

/** What carrying over costs, in one sentence. */
export function carryOverWords({ carryOver }: LookBackPage): string {
	const rates = carryOver.sprints.flatMap((sprint) => sprint.bySize ?? []);
	const middle = median(rates);
	if (middle === null) return 'Nothing has been carried over yet.';
	const taken = median(carryOver.sprints.slice(1).flatMap((sprint) => sprint.takenOfPromise ?? []));
	const [first] = carryOver.reasons;
	const whole = rates.length > 1 ? `In the middle sprint ${percent(middle)}` : percent(middle);
	return `${whole} of its work went over into later ones${
		taken === null ? '' : `, taking ${percent(taken)} of the next promise`
	}.${first ? ` Mostly it was ${REASONS[first.reason]} (${first.count === 1 ? 'once' : `${first.count} times`}).` : ''}`;
}

const ENDED = {
	done: 'done',
	carried: 'carried',
	returned: 'back to the backlog',
	dropped: 'dropped',
	removed: 'taken out',
};

/** Says of each stint of a report what became of it, and why its card was not finished where that was said. */
export function endedWords({
	ledger,
	finished,
	unfinished,
}: Pick<ReportShown, 'ledger' | 'finished' | 'unfinished'>): (stint: Stint) => string {
	const key = ({ card, opened }: Pick<Stint, 'card' | 'opened'>) => `${card} ${opened}`;
	const done = new Set(finished.map(key));
	const last = new Map(ledger.stints.map((stint) => [stint.card, stint]));
	const said = new Map([...unfinished].reverse().map((one) => [one.card, one]));
	return (stint) => {
		if (!stint.outcome) return done.has(key(stint)) ? 'done so far' : 'open';
		const why = last.get(stint.card) === stint && said.get(stint.card);
		if (!why) return ENDED[stint.outcome];
		const reason = why.reason === 'other' ? why.words : REASONS[why.reason];
		return `${stint.outcome === 'done' ? 'split, the rest went on' : ENDED[stint.outcome]}: ${reason}`;
	};
}

/** What happened to a card in a sprint, in a word. */
export const MOVED = {
	burned: 'burned',
	added: 'added',
	resized: 're-sized',
	splitOff: 'split off',
	removed: 'taken out',
	dropped: 'dropped',
};

/** What happened on a day, or to a card on it, every kind with its sum: `12 h burned, +3 h re-sized`. */
export function movedWords(sums: Partial<Record<keyof typeof MOVED, number>>, unit: Unit): string {
	const said = Object.entries(MOVED).flatMap(([kind, word]) => {
		const sum = sums[kind as keyof typeof MOVED] ?? 0;
		if (Math.abs(sum) < 0.005) return [];
		const sign = kind !== 'resized' ? '' : sum > 0 ? '+' : '−';
		return [`${sign}${amount(Math.abs(sum), unit)} ${word}`];
	});
	return said.join(', ');
}

/** Cards behind a figure as a list shows them: each once, of a day with what happened to it instead of an amount. */
export function byCard(
	cards: readonly ReportCard[],
	unit: Unit,
): { card: string; amount: number | null; note?: string }[] {
	return [...group(cards, ({ card }) => card)].map(([card, all]) => {
		const kinds = rollup(
			all,
			(of) => fsum(of, (one) => one.amount ?? 0),
			(one) => one.kind,
		);
		const plain = kinds.get(undefined);
		if (plain !== undefined) return { card, amount: plain };
		return { card, amount: null, note: movedWords(Object.fromEntries(kinds), unit) };
	});
}
