import type { PersonHours } from '$core/pages/plan';
import { parseDay } from '$core/calendar/days';
import { weekHours } from '$core/calendar/team-days';
import { hoursOn, type Rota } from '$core/capacity/hours';
import { figure } from '../words';

/** A person's rota, as far as the days of a calendar need it. */
export function rotaOf(person: PersonHours, holidays: readonly { day: string }[]): Rota {
	const day = (text: string) => parseDay(text)!;
	return {
		boards: [],
		members: [{ person: person.id, from: -Infinity, until: null }],
		weeks: person.working.map((week) => ({ person: person.id, from: day(week.from), hours: week.hours })),
		absences: person.absences
			.filter(({ waits }) => !waits)
			.map((absence) => ({
				person: person.id,
				from: day(absence.from),
				to: day(absence.to),
				hours: absence.hours,
			})),
		shares: [],
		holidays: new Set(holidays.map((holiday) => day(holiday.day))),
	};
}

/** What a day of a person is, for their calendar. */
export function aboutDay(
	person: PersonHours,
	rota: Rota,
	holidays: readonly { day: string; name: string }[],
) {
	return (text: string) => {
		const day = parseDay(text)!;
		const hours = hoursOn(rota, person.id, day);
		const usual = weekHours(rota, person.id, day);
		const holiday = holidays.find((one) => one.day === text);
		if (holiday) return { hours: 0, note: `holiday: ${holiday.name}`, kind: 'holiday' as const };
		const away = person.absences.filter(
			(absence) => !absence.waits && absence.from <= text && text <= absence.to,
		);
		const why = away.map((absence) => absence.note).filter(Boolean);
		if (usual && !hours) return { hours, note: ['away', ...why].join(', '), kind: 'away' as const };
		if (hours < usual)
			return {
				hours,
				note: [`${figure(usual - hours)} h away`, ...why].join(', '),
				kind: 'part' as const,
			};
		if (!usual) return { hours, note: 'no working day', kind: 'free' as const };
		return { hours, note: '', kind: 'work' as const };
	};
}

/** The working week that holds on a day. */
export function weekOn(person: PersonHours, day: string): number[] {
	return person.working.findLast((week) => week.from <= day)?.hours ?? [0, 0, 0, 0, 0, 0, 0];
}

export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
