import type { CardColumns, PanoramaPage, TimelineCard } from '../pages/panorama.ts';

/** Cards with dates, and what blocks what by their places, of the columns as which they came. */
export function cardsOf(columns: CardColumns): Pick<PanoramaPage, 'cards' | 'links'> {
	const { boards, initiatives, people, id, board, number, title, version } = columns;
	const { start, due, clock, initiative, class: classes, day } = columns;
	const of = (place: number | null) => (place === null ? null : initiatives![place]!);
	// Plain objects: put together of others, thousands take several times as long.
	const cards = (id ?? []).map((one, i): TimelineCard => ({
		id: one,
		board: boards[board[i]!]!,
		number: number[i]!,
		title: title[i]!,
		version: version[i]!,
		start: start[i]!,
		due: due[i]!,
		clock: clock[i]!,
		owners: [],
		initiative: of(initiative[i]!),
		class: classes[i]!,
		day: day[i]!,
	}));
	columns.owned?.forEach((place, i) => cards[place]!.owners.push(people![columns.owner[i]!]!));
	return { cards, links: columns.from?.map((from, i): [number, number] => [from, columns.to[i]!]) ?? [] };
}
