import { fsum } from 'd3-array';
import { tidy } from '../sums.ts';
import type { Day, Instant, Zone } from '../calendar/zone.ts';
import type { Ledger, Move } from './ledger.ts';

/** A sprint's work at the end of a day, in the board's unit, and what changed it on that day. */
export interface FollowDay {
	day: Day;
	/** Σ left of the cards in the sprint. */
	left: number;
	/** Burned since the start. */
	burned: number;
	/** committed + added + resized − what left and what was split off. Always: scope − burned = left. */
	scope: number;
	/** What the guide says would be left if work went as the team's hours go. */
	guide: number;
	/** What changed on this day alone. */
	today: Record<Move['kind'], number>;
}

/** A running or closed sprint, day by day. */
export interface Following {
	committed: number;
	/** Empty before the first day. On a closed sprint up to its closing day, as it stood right before the close. */
	days: FollowDay[];
	/** The guide to the end, the start first: what would be left at the end of each day. */
	guide: { day: Day; left: number }[];
}

const NOTHING: FollowDay['today'] = { added: 0, resized: 0, burned: 0, splitOff: 0, removed: 0, dropped: 0 };

/**
 * The guide of a burndown, bent by the team's hours: committed × (1 − hours up to and with a day ÷ all hours). A straight
 * line over the days where there are no hours.
 * @param hours the team's hours on each day of the sprint, as known at its start
 * @param started the day it was started on: a guide begins there, hours before it were not the sprint's
 */
export function guideOf(
	committed: number,
	starts: Day,
	hours: readonly number[],
	started: Day = starts,
): Following['guide'] {
	const late = Math.min(hours.length, Math.max(0, started - starts));
	const own = hours.map((h, i) => (i < late ? 0 : h));
	const all = fsum(own);
	let gone = 0;
	const days = own.map((h, i) => {
		gone += h;
		const share = all > 0 ? gone / all : Math.max(0, i + 1 - late) / Math.max(1, hours.length - late);
		return { day: starts + i, left: tidy(Math.max(0, committed * (1 - share))) };
	});
	return [{ day: starts - 1, left: committed }, ...days];
}

/**
 * A sprint day by day: what was left at the end of each day, what was burned, its scope, and the steps by which work
 * was added, removed, re-sized and split off. Work beyond the last planned day is shown for as long as it goes on.
 * @param sprint its first and last day; a sprint that was started late or early begins on the day it was started
 * @param hours the team's hours on each of those days, as known at its start
 */
export function follow(
	zone: Zone,
	sprint: { from: Day; to: Day; startedAt: Instant; closedAt: Instant | null },
	ledger: Ledger,
	hours: readonly number[],
	asOf: Instant,
): Following {
	const guide = guideOf(ledger.committed, sprint.from, hours, zone.day(sprint.startedAt));
	const guided = new Map(guide.map((point) => [point.day, point.left]));
	const first = Math.min(sprint.from, zone.day(sprint.startedAt));
	const last = zone.day(Math.min(asOf, sprint.closedAt ?? asOf));
	const moves = ledger.moves.filter(({ at }) => at <= asOf);
	const days: FollowDay[] = [];
	let [burned, scope, next] = [0, ledger.committed, 0];
	for (let day = first; day <= last; day++) {
		const end = zone.startOf(day + 1);
		const today = { ...NOTHING };
		for (; next < moves.length && moves[next]!.at < end; next++) {
			const { kind, amount } = moves[next]!;
			today[kind] += amount;
			if (kind === 'burned') burned += amount;
			else scope += kind === 'added' || kind === 'resized' ? amount : -amount;
		}
		for (const kind of Object.keys(today) as Move['kind'][]) today[kind] = tidy(today[kind]);
		const before = day < sprint.from ? ledger.committed : 0;
		days.push({
			day,
			left: tidy(scope - burned),
			burned: tidy(burned),
			scope: tidy(scope),
			guide: guided.get(day) ?? before,
			today,
		});
	}
	return { committed: ledger.committed, days, guide };
}
