import type { BoardHead } from '../../../core/pages/board.ts';
import { partsInHours, partsInPoints } from '../../../core/capacity/promise.ts';
import type { Room } from '../../api.ts';
import { planPage } from './plan.ts';

/**
 * Who has how much room in a sprint of a board: the one asked for, else the running one, else the next.
 * @returns no parts where the board has no sprints or is not sized
 */
export async function roomIn(head: BoardHead, asked: number | null): Promise<Room> {
	if (head.sprintDays === null || head.unit === 'none') return { sprint: null, parts: [] };
	const running = head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt)?.number ?? null;
	const page = await planPage(head, asked ?? running);
	const sprint = head.sprints.find((known) => known.number === page.sprint);
	if (!sprint) return { sprint: null, parts: [] };
	const raw = new Map(page.people.map((person) => [person.person, person.raw]));
	const cards = page.cards
		.filter((card) => card.sprint === sprint.number)
		.map((card) => ({ ...card, card: String(card.number) }));
	const parts =
		head.unit === 'points'
			? partsInPoints(raw, page.learned.perDay, cards)
			: partsInHours(
					raw,
					sprint.focus ?? page.learned.focus,
					sprint.keepBack ?? page.learned.keepBack,
					cards,
				);
	return { sprint: sprint.number, parts };
}
