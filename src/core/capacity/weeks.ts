import { mondayOf } from '../calendar/days.ts';
import type { Day } from '../calendar/zone.ts';
import { daysAway, rawHours, type Rota } from './hours.ts';
import { tidy } from '../sums.ts';
import { PERSON_DAY, portions, standingOf, type Part, type PlannedCard } from './promise.ts';

/** A board as the weeks of its people see it. */
export interface WeekBoard {
	id: string;
	unit: 'hours' | 'points' | 'none';
	focus: number;
	keepBack: number;
	/** Points delivered a person-day; null while unknown. */
	perDay: number | null;
	/** Sprints that are running or to come, with their unfinished cards. */
	sprints: readonly WeekSprint[];
	/** Unfinished cards in the columns of a board without sprints. */
	inHand: readonly PlannedCard[];
}

export interface WeekSprint {
	number: number;
	from: Day;
	to: Day;
	/** Set by hand for this sprint; null: the board's. */
	focus: number | null;
	keepBack: number | null;
	cards: readonly PlannedCard[];
}

/** A person's week: what they have to give, what of it is promised, and the work that lies on it. */
export interface PersonWeek {
	person: string;
	monday: Day;
	/** Hours of the working week less absences and holidays. */
	hours: number;
	give: number;
	promise: number;
	placed: number;
	/** Days away the whole day. */
	away: number;
	standing: Part['standing'];
	/** The cards that lie on this week, and the hours of each. */
	cards: { card: string; hours: number }[];
}

/**
 * The coming weeks of people, over all boards they share their hours between. What is placed in a sprint is spread over
 * its days still to come by the person's hours on them; work in hand on a board without sprints is laid on the weeks in
 * order, as far as their promise for that board goes. Points count as the hours they usually take.
 * @param today days before it have nothing to give any more
 */
export function personWeeks(
	rota: Rota,
	boards: readonly WeekBoard[],
	people: readonly string[],
	today: Day,
	count: number,
): PersonWeek[] {
	const first = mondayOf(today);
	const team = new Set(people);
	const lists = new Map(
		boards
			.flatMap((board) => [...board.sprints.map(({ cards }) => cards), board.inHand])
			.map((cards) => [cards, partsOf(cards, team)]),
	);
	return people.flatMap((person) => {
		const weeks = Array.from({ length: count }, (_, i): PersonWeek => {
			const monday = first + 7 * i;
			const from = Math.max(monday, today);
			let [hours, give, promise] = [0, 0, 0];
			for (const board of boards)
				for (let day = from; day <= monday + 6; day++) {
					const raw = rawHours(rota, person, board.id, day, day);
					const rates = ratesOn(board, day);
					hours += raw;
					give += raw * rates.focus;
					promise += raw * rates.focus * rates.promised;
				}
			const away = daysAway(rota, person, from, monday + 6).length;
			return { person, monday, hours, give, promise, placed: 0, away, standing: 'room', cards: [] };
		});
		const lay = (week: PersonWeek | undefined, card: string, hours: number) => {
			if (!week || hours < 1e-6) return;
			week.placed += hours;
			week.cards.push({ card, hours: tidy(hours) });
		};
		for (const board of boards) {
			const hourOf = hoursPerUnit(board);
			for (const sprint of board.sprints) {
				const from = Math.max(sprint.from, today);
				const all = rawHours(rota, person, board.id, from, sprint.to);
				const shares = weeks.map(({ monday }) => {
					const [a, b] = [Math.max(from, monday), Math.min(sprint.to, monday + 6)];
					return a <= b && all ? rawHours(rota, person, board.id, a, b) / all : 0;
				});
				for (const { card, unplanned, part } of lists.get(sprint.cards)!.get(person) ?? []) {
					// Surprises are drawn on the keep-back.
					if (unplanned) continue;
					const hours = part * hourOf;
					// Nobody works on it on any day to come: it lies on the sprint's last week, to be seen.
					if (!all) lay(weeks[(mondayOf(Math.max(sprint.to, today)) - first) / 7], card, hours);
					for (const [i, share] of shares.entries()) if (share) lay(weeks[i], card, hours * share);
				}
			}
			const { focus, promised } = ratesOn(board, today);
			const room = weeks.map(
				(week) =>
					rawHours(rota, person, board.id, Math.max(week.monday, today), week.monday + 6) * focus * promised,
			);
			let at = 0;
			for (const { card, part: whole } of lists.get(board.inHand)!.get(person) ?? []) {
				let part = whole * hourOf;
				while (part > 1e-6 && at < weeks.length) {
					const some = at === weeks.length - 1 ? part : Math.min(part, room[at]!);
					lay(weeks[at], card, some);
					part -= some;
					room[at]! -= some;
					if (part > 1e-6) at++;
				}
			}
		}
		return weeks.map((week) => ({
			...week,
			hours: tidy(week.hours),
			give: tidy(week.give),
			promise: tidy(week.promise),
			placed: tidy(week.placed),
			standing: standingOf(week.placed, week.promise),
		}));
	});
}

/** Cards by those who have a part in them, each with that part. */
function partsOf(
	cards: readonly PlannedCard[],
	team: ReadonlySet<string>,
): Map<string, { card: string; unplanned: boolean; part: number }[]> {
	const parts = new Map<string, { card: string; unplanned: boolean; part: number }[]>();
	for (const card of cards)
		for (const [person, part] of portions(card, team)) {
			if (!parts.has(person)) parts.set(person, []);
			parts.get(person)!.push({ card: card.card, unplanned: card.unplanned ?? false, part });
		}
	return parts;
}

/** Focus on a day, and the part of the hours to give that is promised: as the sprint of that day has them, else the board. */
function ratesOn(board: WeekBoard, day: Day): { focus: number; promised: number } {
	const sprint = board.sprints.find((one) => one.from <= day && day <= one.to);
	const keepBack = board.unit === 'points' ? 0 : (sprint?.keepBack ?? board.keepBack);
	return { focus: sprint?.focus ?? board.focus, promised: 1 - keepBack };
}

/** Hours that one unit of a board's size usually takes of what people have to give; 0 where nothing says. */
function hoursPerUnit(board: WeekBoard): number {
	if (board.unit === 'hours') return 1;
	return board.unit === 'points' && board.perDay ? (PERSON_DAY * board.focus) / board.perDay : 0;
}
