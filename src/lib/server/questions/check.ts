import { balances } from '../../../core/sprint/settle.ts';
import { rows } from '../database.ts';
import { boardByKey } from './board-head.ts';
import { accountsOf } from './fold.ts';

export interface Checked {
	boards: number;
	sprints: number;
	stints: number;
	cards: number;
	/** What does not agree, in sentences. */
	wrong: string[];
}

const near = (a: number, b: number) => Math.abs(a - b) < 0.01;

/**
 * Proves on the whole database, or on one board of it, that both sides of every sprint's ledger agree, that the cards' rows say what their
 * history says, and that logged time is what the stints have as worked.
 * @param only the key of the board; null for all
 */
export async function checkLedgers(only: string | null = null): Promise<Checked> {
	const found: Checked = { boards: 0, sprints: 0, stints: 0, cards: 0, wrong: [] };
	const boards = await rows<{ key: string }>(
		'select key from board where $1::text is null or key = $1 order by key',
		[only],
	);
	for (const { key } of boards) {
		const head = await boardByKey(key);
		if (!head) continue;
		const { ledgers, cards } = await accountsOf(head);
		const tables = await rows<{
			number: number;
			size: number | null;
			left: number;
			sprint: number | null;
			archived: boolean;
			done: boolean;
		}>(
			`select c.number, c.size, c."left", s.number as sprint, c.archived_at is not null as archived, c.clock = 'done' as done
			from card c left join sprint s on s.id = c.sprint_id
			where c.board_id = $1`,
			[head.id],
		);
		const logged = await rows<{ sprint: number; hours: number }>(
			`select s.number as sprint, sum(t.hours) as hours
			from time_entry t join sprint s on s.id = t.sprint_id
			where s.board_id = $1 and t.withdrawn_at is null
			group by 1`,
			[head.id],
		);
		const hours = new Map(logged.map((one) => [one.sprint, one.hours]));
		found.boards++;
		found.sprints += ledgers.length;
		found.cards += tables.length;
		for (const ledger of ledgers) {
			found.stints += ledger.stints.length;
			if (!balances(ledger))
				found.wrong.push(`${key}: both sides of the ledger of sprint ${ledger.number} do not agree.`);
			if (!near(hours.get(ledger.number) ?? 0, ledger.worked))
				found.wrong.push(
					`${key}: ${hours.get(ledger.number) ?? 0} h are logged in sprint ${ledger.number}, its stints have ${ledger.worked} h.`,
				);
		}
		for (const card of tables) {
			const said = cards.get(`${key}-${card.number}`);
			if (!said) {
				found.wrong.push(`${key}-${card.number}: it has a row, but no history.`);
				continue;
			}
			if (!near(said.size ?? -1, card.size ?? -1) || !near(said.left, card.left))
				found.wrong.push(
					`${key}-${card.number}: its row has ${card.left} left of ${card.size}, its history ${said.left} of ${said.size}.`,
				);
			// An archived or done card may be on the list of the sprint in which it ended.
			if (!card.archived && !card.done && said.sprint !== card.sprint)
				found.wrong.push(
					`${key}-${card.number}: its row is on sprint ${card.sprint}, its history on ${said.sprint}.`,
				);
		}
	}
	return found;
}
