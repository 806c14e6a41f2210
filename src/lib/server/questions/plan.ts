import type { PlanPage, PlanPerson } from '../../../core/pages/plan.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { dayText } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { daysAway, givesFrom, hoursOn, rawHours } from '../../../core/capacity/hours.ts';
import { now } from '../time.ts';
import { openCardsOf } from './open-cards.ts';
import { boardPast, turnedOut } from './past.ts';
import { daysOf, workersOf } from './promise.ts';
import { rotaOf } from './rota.ts';

/**
 * What planning a sprint of a board needs: the backlog, the sprint's unfinished cards, the hours of its people and what
 * its past says.
 * @param asked the sprint's number; null or an unknown one: the next that has not started, else the running one
 */
export async function planPage(head: BoardHead, asked: number | null): Promise<PlanPage> {
	const open = head.sprints.filter((sprint) => !sprint.closedAt);
	const sprint =
		open.find((known) => known.number === asked) ?? open.find((known) => !known.startedAt) ?? open[0];
	const [placed, { learned }, past, rota] = await Promise.all([
		openCardsOf(
			head,
			`plan ${sprint?.number}`,
			(card) => card.column === null || card.sprint === sprint?.number,
		),
		boardPast(head),
		turnedOut(head),
		rotaOf(head.teamId),
	]);
	const today = zoneOf(head.timeZone).day(now().getTime());
	const days = sprint && daysOf(head, sprint.number);
	const people = !days
		? []
		: workersOf(head).map(({ id }): PlanPerson => {
				const from = givesFrom(days, today);
				let worked = 0;
				for (let day = from; day <= days.to; day++) if (hoursOn(rota, id, day) > 0) worked++;
				return {
					person: id,
					raw: rawHours(rota, id, head.id, from, days.to),
					whole: rawHours(rota, id, head.id, days.from, days.to),
					after: rawHours(
						rota,
						id,
						head.id,
						Math.max(days.from, sprint!.startedAt ? today + 1 : days.from),
						days.to,
					),
					away: daysAway(rota, id, from, days.to).map(dayText),
					days: worked,
				};
			});
	return {
		seq: placed.seq,
		cards: placed.cards,
		sprint: sprint?.number ?? null,
		people,
		learned,
		past,
		skills: [...new Set(head.people.flatMap((person) => person.skills))],
	};
}
