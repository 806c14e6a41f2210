import { percentile } from '../flow/percentile.ts';
import { tidy } from '../sums.ts';

/** What a closed sprint says of how a team's hours turn into finished work. */
export interface ClosedSprint {
	number: number;
	/** Hours logged in its stints, and the part of them on unplanned stints. */
	worked: number;
	unplanned: number;
	/** Hours of the people, as frozen when it started. */
	raw: number;
	/** What was burned on cards that were done, in the board's unit. */
	delivered: number;
}

export const USUAL_FOCUS = 0.75;
export const USUAL_KEEP_BACK = 0.2;
/** Nothing is learned from fewer closed sprints than this; of more, the last six count. */
const FEWEST = 3;
const COUNTED = 6;
/** What is kept back would have been enough in so many percent of sprints. */
const KEEP_BACK_PERCENTILE = 70;
/** A person-day, in hours. */
export const PERSON_DAY = 8;

export interface Learned {
	/** Share of hours that goes into cards. */
	focus: number;
	/** Share of the hours to give that is not promised. */
	keepBack: number;
	/** From how many sprints; 0 when these are the usual values to begin with. */
	from: number;
	/** Size delivered a person-day; null while too few sprints are closed. */
	perDay: number | null;
	/** Size delivered in a sprint; null while too few sprints are closed. */
	delivered: number | null;
}

/** The middle of a list, the mean of the middle two of an even one; null when it is empty. */
export function median(values: readonly number[]): number | null {
	if (!values.length) return null;
	const sorted = [...values].sort((a, b) => a - b);
	const half = sorted.length >> 1;
	return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * What a board has learned from its last six closed sprints in which people had hours. Focus is the median of worked ÷ raw
 * hours, never above 1; keep-back the share of the worked hours that went into unplanned cards, at the 70th percentile
 * (nearest rank), so that it would have been enough in most of them. What is delivered counts sprints without hours too.
 * @param closed in the order of their closing
 */
export function learn(closed: readonly ClosedSprint[]): Learned {
	const unlearned = { focus: USUAL_FOCUS, keepBack: USUAL_KEEP_BACK, from: 0, perDay: null, delivered: null };
	if (closed.length < FEWEST) return unlearned;
	const delivered = median(closed.slice(-COUNTED).map((s) => s.delivered));
	const staffed = closed.filter((sprint) => sprint.raw > 0).slice(-COUNTED);
	if (staffed.length < FEWEST) return { ...unlearned, delivered };
	const surprises = staffed.filter((s) => s.worked > 0).map((s) => s.unplanned / s.worked);
	return {
		focus: Math.min(1, median(staffed.map((s) => s.worked / s.raw))!),
		keepBack:
			percentile(
				surprises.sort((a, b) => a - b),
				KEEP_BACK_PERCENTILE,
			) ?? USUAL_KEEP_BACK,
		from: staffed.length,
		perDay: median(staffed.map((s) => s.delivered / (s.raw / PERSON_DAY))),
		delivered,
	};
}

/** A card as planning sees it. */
export interface PlannedCard {
	/** Its key: ties are settled by it. */
	card: string;
	left: number;
	owners: readonly string[];
	/** Unplanned cards are drawn on the keep-back and are not placed. */
	unplanned?: boolean;
}

/** A person's part in a sprint. */
export interface Part {
	person: string;
	raw: number;
	/** Hours to give. */
	give: number;
	promise: number;
	/** Work held by planned cards; what is shared is split equally among owners who are in the team. */
	placed: number;
	/** The same of unplanned cards. */
	surprises: number;
	/** placed ÷ promise; null when nothing is promised. */
	load: number | null;
	standing: 'room' | 'fits' | 'over';
}

/** How a load stands: under 0.7 room, up to 1 it fits, above 1 over. With nothing promised, anything placed is over. */
export function standingOf(placed: number, promise: number): Part['standing'] {
	if (promise <= 0) return placed > 0 ? 'over' : 'room';
	const load = placed / promise;
	return load > 1 + 1e-9 ? 'over' : load < 0.7 ? 'room' : 'fits';
}

/** What each card's owners in the team hold of it, by person. A card whose owners have all left is nobody's. */
export function portions(card: PlannedCard, team: ReadonlySet<string>): Map<string, number> {
	const owners = card.owners.filter((owner) => team.has(owner));
	return new Map(owners.map((owner) => [owner, card.left / owners.length]));
}

/** What people hold of cards: planned work and surprises apart. */
export function placedBy(
	cards: readonly PlannedCard[],
	team: ReadonlySet<string>,
): { placed: Map<string, number>; surprises: Map<string, number> } {
	const placed = new Map<string, number>();
	const surprises = new Map<string, number>();
	for (const card of cards)
		for (const [owner, part] of portions(card, team)) {
			const sums = card.unplanned ? surprises : placed;
			sums.set(owner, (sums.get(owner) ?? 0) + part);
		}
	return { placed, surprises };
}

/**
 * Who can take on how much in a sprint sized in hours, and what they hold.
 * give = raw × focus, promise = give × (1 − keep-back).
 */
export function partsInHours(
	raw: ReadonlyMap<string, number>,
	focus: number,
	keepBack: number,
	cards: readonly PlannedCard[],
): Part[] {
	return parts(
		raw,
		cards,
		(hours) => hours * focus,
		(hours) => hours * focus * (1 - keepBack),
	);
}

/**
 * The same for a board sized in points: velocity per person-day, by each person's share of the raw hours. There is no
 * keep-back: velocity already paid for surprises.
 * @param perDay points delivered a person-day; null: nothing can be promised yet
 */
export function partsInPoints(
	raw: ReadonlyMap<string, number>,
	perDay: number | null,
	cards: readonly PlannedCard[],
): Part[] {
	const points = (hours: number) => (hours / PERSON_DAY) * (perDay ?? 0);
	return parts(raw, cards, points, points);
}

function parts(
	raw: ReadonlyMap<string, number>,
	cards: readonly PlannedCard[],
	giveOf: (raw: number) => number,
	promiseOf: (raw: number) => number,
): Part[] {
	const { placed, surprises } = placedBy(cards, new Set(raw.keys()));
	return [...raw].map(([person, hours]) => {
		const promise = tidy(promiseOf(hours));
		const held = tidy(placed.get(person) ?? 0);
		return {
			person,
			raw: hours,
			give: tidy(giveOf(hours)),
			promise,
			placed: held,
			surprises: tidy(surprises.get(person) ?? 0),
			load: promise > 0 ? held / promise : null,
			standing: standingOf(held, promise),
		};
	});
}
