import type { BoardHead, CardView } from '$core/pages/board';
import { dayText } from '$core/calendar/days';
import type { Day } from '$core/calendar/zone';
import { count, dateWords, daysSince, list } from '../words';

/** The unfinished cards that stand on a board: from the last column backwards, the oldest of each first. */
export function walkOrder(head: Pick<BoardHead, 'columns'>, cards: readonly CardView[]): CardView[] {
	const place = new Map(head.columns.map((column, i) => [column.id, i]));
	const since = (card: CardView) => Date.parse(card.started ?? card.entered ?? '') || Infinity;
	return cards
		.filter((card) => card.column !== null && card.clock !== 'done' && !card.archived && !card.parts)
		.sort(
			(a, b) => place.get(b.column!)! - place.get(a.column!)! || since(a) - since(b) || a.number - b.number,
		);
}

/** What a walk leaves behind, as plain Markdown that can be sent on. */
export function summaryText(
	head: Pick<BoardHead, 'name' | 'key' | 'timeZone'>,
	walk: {
		cards: readonly CardView[];
		notes: readonly { card: CardView; text: string }[];
		silent: readonly string[];
		today: Day;
	},
): string {
	const blocked = walk.cards.filter((card) => card.blocked);
	return [
		`**${head.name}, ${dateWords(dayText(walk.today))}**: ${count(walk.cards.length, 'card')} walked.`,
		...(blocked.length
			? [
					'',
					'Blocked:',
					...blocked.map(
						(card) =>
							`- ${head.key}-${card.number} ${card.title}: ${card.blocked!.reason} (${count(Math.max(1, daysSince(card.blocked!.since, walk.today, head.timeZone)), 'day')})`,
					),
				]
			: []),
		...(walk.notes.length
			? [
					'',
					'Said:',
					...walk.notes.map(({ card, text }) => `- ${head.key}-${card.number} ${card.title}: ${text}`),
				]
			: []),
		...(walk.silent.length ? ['', `Not heard: ${list([...walk.silent])}.`] : []),
	].join('\n');
}
