import type { Odds } from '$core/capacity/odds';
import { tooLittle } from '$core/capacity/odds';
import type { Learned, Part } from '$core/capacity/promise';
import type { SprintView, Unit } from '$core/pages/board';
import { amount, count, dateWords, figure, list, shortDate } from '../words';
import type { PlanRow } from './plan-state.svelte';

/** How a person stands in a sprint: what they hold of their promise, and how much over they are. */
export function standingWords(part: Part, unit: Unit): { text: string; note: string; over: boolean } {
	const text = `${amount(part.placed, unit).replace(/ \w+$/, '')} of ${amount(part.promise, unit)}`;
	if (part.standing === 'over')
		return { text, note: `${amount(part.placed - part.promise, unit)} over`, over: true };
	if (part.promise <= 0) return { text, note: 'nothing to give', over: false };
	return { text, note: part.standing === 'room' ? 'has room' : 'fits', over: false };
}

/** When someone is there: `10 days`, `away Thu 3 Dec to Fri 4 Dec`. */
export function presenceWords(row: PlanRow, from: string, to: string): string {
	if (!row.hours) return '';
	const { away, days } = row.hours;
	const working = count(days, 'day');
	if (!away.length) return working;
	const spans = spansOf(away);
	const words = spans.map(([a, b]) => (a === b ? shortDate(a) : `${shortDate(a)} to ${shortDate(b)}`));
	if (days === 0) return from <= to ? 'away all of it' : 'away';
	return `${working}, away ${list(words.length > 2 ? [`${words.length} times`] : words)}`;
}

function spansOf(days: readonly string[]): [string, string][] {
	const spans: [string, string][] = [];
	for (const day of days) {
		const last = spans.at(-1);
		const next = last && new Date(Date.parse(last[1]) + 86_400_000).toISOString().slice(0, 10);
		if (last && next === day) last[1] = day;
		else spans.push([day, day]);
	}
	return spans;
}

/** The odds in a sentence; why there are none, where there are none. */
export function oddsWords(
	found: Odds | null,
	past: Parameters<typeof tooLittle>[0],
	cards: number,
	unowned: number,
	ends: string,
	unit: Unit,
): { before: string; strong: string; after: string } {
	if (unit !== 'hours') return { before: 'Odds are for boards sized in hours.', strong: '', after: '' };
	const none = tooLittle(past);
	if (none) return { before: none, strong: '', after: '' };
	if (!cards) return { before: 'Nothing is in it yet, so there are no odds.', strong: '', after: '' };
	if (!found) return { before: 'Finding the odds…', strong: '', after: '' };
	return {
		before: `By how past cards turned out, all of it is done by ${dateWords(ends)} in `,
		strong: `${Math.round((found.all / found.trials) * 100)} of 100`,
		// Nobody works on a card that nobody has: the odds say what they take for granted, and what cannot be.
		after: found.nobodys.length
			? ` tries, since nobody has room for ${count(found.nobodys.length, 'card')} without an owner.`
			: unowned
				? ` tries, if ${unowned === 1 ? 'the card' : `the ${unowned} cards`} without an owner ${unowned === 1 ? 'is' : 'are'} shared out.`
				: ' tries.',
	};
}

/**
 * Where focus and keep-back come from, or the promise in points.
 * @param focus of the sprint: its own, or what is learned
 * @param keepBack likewise
 */
export function basisWords(
	unit: Unit,
	sprint: Pick<SprintView, 'focus' | 'keepBack' | 'startedAt'>,
	learned: Learned,
	focus: number,
	keepBack: number,
): string {
	const { from } = learned;
	const percent = (share: number) => `${Math.round(share * 100)}%`;
	if (unit === 'points')
		return learned.perDay === null
			? 'What can be promised is learned from velocity: it is said once three sprints are closed.'
			: `The promise is learned from velocity: ${figure(learned.perDay, 2)} points a person-day over the last ${from} sprints.`;
	const both = `Focus ${figure(focus, 2)} and ${percent(keepBack)} kept back`;
	if (sprint.startedAt) return `${both}, frozen when the sprint started.`;
	const set = [
		...(sprint.focus === null ? [] : [`focus (learned: ${figure(learned.focus, 2)})`]),
		...(sprint.keepBack === null ? [] : [`keep-back (learned: ${percent(learned.keepBack)})`]),
	];
	if (set.length) return `${both}, with the ${list(set)} set by hand for this sprint.`;
	const each = `Focus ${figure(focus, 2)}, and ${percent(keepBack)} kept back`;
	return from
		? `${each}: learned from the last ${from} sprints.`
		: `${each}, to begin with: they are learned once three sprints are closed.`;
}
