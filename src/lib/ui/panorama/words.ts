import type {
	InitiativeFigures,
	NamedCards,
	PanoramaBoard,
	PanoramaPage,
	TimelineCard,
} from '$core/pages/panorama';
import { spanOf } from '$core/dates/follow';
import { dayText, parseDay } from '$core/calendar/days';
import type { Asked } from '$core/panorama/asked';
import {
	boardsMeant,
	broken,
	datesOf,
	daysLate,
	isLate,
	keyOf,
	meantCards,
	meantInitiatives,
	overBudget,
	type Units,
} from '$core/panorama/rows';
import { amount, calledAmong, count, dateWords, list } from '../words';

/** What is left of an initiative: `161 h and 12 points`. */
export function leftWords(page: Units, one: InitiativeFigures): string {
	const by = new Map<PanoramaBoard['unit'], number>();
	for (const { board, left } of one.parts) {
		const unit = page.boards.find(({ id }) => id === board)?.unit ?? 'none';
		if (unit !== 'none') by.set(unit, (by.get(unit) ?? 0) + left);
	}
	return list([...by].map(([unit, left]) => amount(left, unit)));
}

/** The figures of an initiative in one line: `161 of 600 h left, 17 of 31 cards done`. */
export function figuresOf(page: Units, one: InitiativeFigures): string {
	if (!one.cards.all) return 'no card belongs to it yet';
	const left = leftWords(page, one);
	return [
		...(left ? [`${left} left`] : []),
		`${one.cards.done} of ${count(one.cards.all, 'card')} done`,
	].join(', ');
}

/** Whether it will be done in time, by how its cards have gone; null where nothing says. */
export function endWords(
	one: InitiativeFigures,
	today: string,
): { text: string; tone: 'late' | 'in-time' | 'soft' } | null {
	if (one.cards.all > 0 && one.cards.done === one.cards.all) return { text: 'done', tone: 'in-time' };
	const late = daysLate(one);
	if (late !== null)
		return late > 0
			? { text: `${count(late, 'day')} late`, tone: 'late' }
			: { text: 'in time', tone: 'in-time' };
	if (one.doneBy) return { text: `by ${dateWords(one.doneBy, today)}`, tone: 'soft' };
	if (one.target && one.target < today && one.cards.all > 0)
		return {
			text: `${count(parseDay(today)! - parseDay(one.target)!, 'day')} past its target`,
			tone: 'late',
		};
	return null;
}

/** That it has passed its budget, or will with what is left of it, in words; empty where it does not. */
export function overWords(page: Units, one: InitiativeFigures): string {
	const over = overBudget(page, one);
	const passes = one.worked > (one.hours ?? 0) ? 'over' : 'will be over';
	return over > 0 ? `${passes} its budget by ${amount(over, 'hours')}` : '';
}

/** A card as its bar is called. */
export function cardWords(page: PanoramaPage, card: TimelineCard): string {
	const span = spanOf(datesOf(card))!;
	const owners = card.owners.flatMap((id) => page.people.find((one) => one.id === id)?.name ?? []);
	const [from, to] = [dayText(span.start), dayText(span.end)];
	const when =
		from === to
			? dateWords(from, page.today)
			: `${dateWords(from, page.today)} to ${dateWords(to, page.today)}`;
	const state =
		card.clock === 'done' ? 'done' : card.clock === 'running' ? `in hand, day ${card.day ?? 1}` : 'waits';
	return `${keyOf(page, card)} ${card.title}: ${when}, ${state}, ${owners.length ? list(owners) : 'nobody’s yet'}`;
}

/** What stands beside a bar: whose it is, and on which day. */
export function besideBar(page: PanoramaPage, card: TimelineCard): string {
	const known = new Set(page.people.map(({ id }) => id));
	const owners = card.owners.filter((id) => known.has(id)).map(calledAmong(page.people));
	return [
		...(owners.length > 2
			? [`${owners[0]} and ${owners.length - 1} more`]
			: owners.length
				? [list(owners)]
				: []),
		...(card.clock === 'running' && card.day ? [`day ${card.day}`] : []),
	].join(', ');
}

/** Where a card of one of several boards opens, by its key. */
export function cardAddress(boards: readonly Pick<PanoramaBoard, 'key' | 'slug'>[], key: string): string {
	const at = key.lastIndexOf('-');
	const board = boards.find((one) => one.key === key.slice(0, at));
	return `/boards/${board?.slug ?? ''}?card=${key.slice(at + 1)}`;
}

/** Cards of the page by their keys. */
export function namedOf(page: PanoramaPage, places: readonly number[]): NamedCards {
	const cards = places.map((at) => page.cards[at]!);
	return {
		cards: cards.map((card) => ({ card: keyOf(page, card), amount: null })),
		titles: Object.fromEntries(cards.map((card) => [keyOf(page, card), card.title])),
	};
}

export interface SaidPart {
	text: string;
	tone: '' | 'strong' | 'warn' | 'care';
	/** What is looked at when it is pressed. */
	to?: Partial<Asked>;
	/** The cards behind it, by their places on the page; or those that stand on none, which are asked for. */
	behind?: { title: string; cards: number[] | 'loose' };
}

/** The sentence of the panorama: how much there is, what will be late, and what holds others up. */
export function sentenceOf(page: PanoramaPage, asked: Asked): SaidPart[] {
	const today = parseDay(page.today)!;
	const boards = boardsMeant(page, asked).size;
	const initiatives = meantInitiatives(page, asked);
	const meant = meantCards(page, asked);
	const open = meant.filter((at) => page.cards[at]!.clock !== 'done');
	const said: SaidPart[] = [
		{ text: `${count(initiatives.length, 'initiative')},`, tone: 'strong', to: { as: 'stages' } },
		{
			text: `${count(open.length, 'card')} to do with a date`,
			tone: 'strong',
			behind: { title: 'To do with a date', cards: open },
		},
		{ text: `on ${count(boards, 'board')}.`, tone: 'strong', to: { as: 'kinds' } },
	];
	const late = initiatives
		.map((one) => ({ one, days: daysLate(one) ?? 0 }))
		.filter(({ days }) => days > 0)
		.sort((a, b) => b.days - a.days);
	if (late.length) {
		const [{ one, days }] = late as [(typeof late)[number]];
		said.push({
			text: `${one.name} will be ${count(days, 'day')} late${late.length > 1 ? `, and ${late.length - 1} more too,` : ''}`,
			tone: 'warn',
		});
		said.push({ text: 'by how cards have gone (85%).', tone: '' });
	}
	const late_ = meant.filter((at) => isLate(page.cards[at]!, today));
	if (late_.length)
		said.push({
			text: `${count(late_.length, 'card is', 'cards are')} late.`,
			tone: 'warn',
			behind: { title: 'Late', cards: late_ },
		});
	const shown = new Set(meant);
	const held = new Map<number, number[]>();
	for (const [from, to] of broken(page)) if (shown.has(to)) held.set(from, [...(held.get(from) ?? []), to]);
	const [worst] = [...held].sort((a, b) => b[1].length - a[1].length);
	if (worst) {
		const key = keyOf(page, page.cards[worst[0]]!);
		said.push({
			text: `${key} holds up ${count(worst[1].length, 'card')}${held.size > 1 ? ';' : '.'}`,
			tone: 'strong',
			behind: { title: `Held up by ${key}`, cards: worst[1] },
		});
		if (held.size > 1)
			said.push({
				text: `${held.size - 1} more ${held.size > 2 ? 'do' : 'does'}.`,
				tone: 'strong',
				behind: { title: 'They hold up others', cards: [...held.keys()].filter((at) => at !== worst[0]) },
			});
	}
	for (const { name, late: behind } of page.milestones
		.filter((one) => one.day >= page.today && one.late.length)
		.slice(0, 1))
		said.push({
			text: `${name} will not be met: ${behind[0]!.what} is ${count(behind[0]!.days, 'day')} after it${behind.length > 1 ? `, and ${behind.length - 1} more` : ''}.`,
			tone: 'warn',
		});
	if (page.loose && !page.narrowed && !asked.who && !asked.boards.length)
		said.push({
			text: `${count(page.loose, 'card has', 'cards have')} no date and hang on nothing.`,
			tone: 'care',
			behind: { title: 'Without a date', cards: 'loose' },
		});
	return said;
}
