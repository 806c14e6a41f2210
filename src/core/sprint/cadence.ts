import { dayText, weekday } from '../calendar/days.ts';
import type { Day } from '../calendar/zone.ts';

/** How a board's sprints follow each other: every so many days, starting on a weekday (0: Monday). */
export interface Cadence {
	days: number;
	weekday: number;
}

export interface SprintDates {
	number: number;
	starts: Day;
	ends: Day;
	/** A sprint that was started or closed keeps its start. */
	started?: boolean;
}

/**
 * The dates of the next sprints.
 * @param after the last sprint there is, or null: then the first starts on the first such weekday from today on
 * @param works whether the team works on a day: a sprint ends on its last working day
 */
export function nextSprints(
	cadence: Cadence,
	after: SprintDates | null,
	today: Day,
	count: number,
	works: (day: Day) => boolean,
): SprintDates[] {
	const list: SprintDates[] = [];
	let last = after;
	for (let i = 0; i < count; i++) {
		const earliest = last ? Math.max(last.starts + cadence.days, last.ends + 1) : today;
		const starts = onWeekday(earliest, cadence);
		let ends = starts + cadence.days - 1;
		while (ends > starts && !works(ends)) ends--;
		last = { number: (last?.number ?? 0) + 1, starts, ends };
		list.push(last);
	}
	return list;
}

/** The first day from one on that is the weekday on which sprints start; any day where a sprint is not whole weeks long. */
function onWeekday(day: Day, cadence: Cadence): Day {
	if (cadence.days % 7) return day;
	return day + ((cadence.weekday - weekday(day) + 7) % 7);
}

/** Why dates cannot be given to a sprint: a code, a sentence and the field it is about. */
export interface DateProblem {
	code: 'sprint.backwards' | 'sprint.overlap' | 'sprint.started';
	field: 'starts' | 'ends';
	sentence: string;
}

/**
 * Gives a sprint other dates. Later sprints keep theirs, or follow by as many days as its end moved.
 * @returns the sprints whose dates change, the one that was moved among them; or why it cannot be
 */
export function moveSprint(
	sprints: readonly SprintDates[],
	number: number,
	starts: Day,
	ends: Day,
	follow: boolean,
): { ok: true; moved: SprintDates[] } | { ok: false; problem: DateProblem } {
	const refuse = (code: DateProblem['code'], field: DateProblem['field'], sentence: string) =>
		({ ok: false, problem: { code, field, sentence } }) as const;
	const one = sprints.find((sprint) => sprint.number === number)!;
	if (ends < starts)
		return refuse(
			'sprint.backwards',
			'ends',
			`A sprint ends on or after the day it starts: ${dayText(ends)} is before ${dayText(starts)}.`,
		);
	if (one.started && starts !== one.starts)
		return refuse('sprint.started', 'starts', `Sprint ${number} has started: only its end can be moved.`);
	const by = ends - one.ends;
	const all = sprints.map((sprint): SprintDates => {
		if (sprint.number === number) return { ...sprint, starts, ends };
		if (follow && sprint.starts > one.starts && !sprint.started)
			return { ...sprint, starts: sprint.starts + by, ends: sprint.ends + by };
		return sprint;
	});
	const inOrder = [...all].sort((a, b) => a.starts - b.starts || a.number - b.number);
	for (const [i, sprint] of inOrder.entries()) {
		const before = inOrder[i - 1];
		if (!before || before.ends < sprint.starts) continue;
		const other = sprint.number === number ? before : sprint;
		// Sprints that overlapped already are not this change's doing.
		if (sprint.number !== number && before.number !== number && !follow) continue;
		return refuse(
			'sprint.overlap',
			sprint.number === number ? 'starts' : 'ends',
			`Sprint ${number} would overlap sprint ${other.number} (${dayText(other.starts)} to ${dayText(other.ends)}). Choose other dates, or let later sprints follow.`,
		);
	}
	const moved = all.filter((sprint, i) => {
		const old = sprints[i]!;
		return sprint.starts !== old.starts || sprint.ends !== old.ends;
	});
	return { ok: true, moved };
}
