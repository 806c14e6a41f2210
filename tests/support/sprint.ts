import type pg from 'pg';
import { sprintAccounts } from '../../src/core/sprint/accounts.ts';
import type { Ledger } from '../../src/core/sprint/ledger.ts';
import { boardHead } from '../../src/lib/server/questions/board-head.ts';
import { boardFile, boardHistory } from '../../src/lib/server/questions/history.ts';
import { addCard, cardRow, command, smallBoard, type SmallBoard } from './small-board.ts';

export interface SprintBoard extends SmallBoard {
	team: string;
	/** The cards of the running sprint. */
	cards: string[];
}

/** Cards by their ids, each as it was last seen. */
export const seen = async (db: pg.Pool, ...ids: string[]): Promise<{ card: string; version: number }[]> => {
	const { rows } = await db.query<{ id: string; version: number }>(
		'select id, version from card where id = any($1)',
		[ids],
	);
	return ids.map((card) => ({ card, version: rows.find((row) => row.id === card)!.version }));
};

/** A sized card that waits in the backlog. */
export async function sized(db: pg.Pool, board: SmallBoard, size: number, title = 'A card'): Promise<string> {
	const card = await addCard(board, null, title);
	const { version } = await cardRow(db, card);
	await command(board.member, 'SizeCard', { card, version, size });
	return card;
}

/** Does something at another time than the one at which the tests' clock stands. */
export async function at<T>(time: string, work: () => Promise<T>): Promise<T> {
	const stands = process.env.HARROW_NOW;
	process.env.HARROW_NOW = time;
	try {
		return await work();
	} finally {
		process.env.HARROW_NOW = stands;
	}
}

/** Starts a sprint. */
export async function start(board: SmallBoard, number: number): Promise<void> {
	const sprint = (await boardHead(board.lead, board.slug)).sprints.find((one) => one.number === number)!;
	await command(board.lead, 'StartSprint', { board: board.id, sprint: number, version: sprint.version });
}

/** A board with a sprint that runs since nine, holding cards of these titles and sizes; everyone works 8 h on weekdays. */
export async function runningBoard(
	db: pg.Pool,
	cards: readonly (readonly [title: string, size: number])[],
): Promise<SprintBoard> {
	return at('2026-11-23T08:00:00Z', async () => {
		const board = await plannedBoard(db, cards);
		await at('2026-11-23T09:00:00Z', () => start(board, 1));
		return board;
	});
}

/** The same before its sprint has started. */
export async function plannedBoard(
	db: pg.Pool,
	cards: readonly (readonly [title: string, size: number])[],
): Promise<SprintBoard> {
	const board = await smallBoard(db);
	const { rows } = await db.query<{ team: string }>('select team_id as team from board where id = $1', [
		board.id,
	]);
	const { team } = rows[0]!;
	for (const person of [board.lead, board.member])
		await command(board.lead, 'ChangeWeek', {
			team,
			person: person.id,
			from: '2026-01-01',
			hours: [8, 8, 8, 8, 8, 0, 0],
		});
	await command(board.lead, 'ChangeCadence', { board: board.id, days: 14, weekday: 0 });
	const made = await command(board.member, 'AddCards', {
		board: board.id,
		cards: cards.map(([title, size]) => ({ title, size })),
	});
	const ids = (made.result.cards as { id: string }[]).map((card) => card.id);
	if (ids.length)
		await command(board.member, 'PlanCards', { board: board.id, cards: await seen(db, ...ids), sprint: 1 });
	return { ...board, team, cards: ids };
}

/** The ledger of a sprint as the board's history has it. */
export async function ledgerOf(board: SmallBoard, number: number): Promise<Ledger> {
	const head = await boardHead(board.lead, board.slug);
	const { ledgers } = sprintAccounts(
		boardFile(head),
		await boardHistory(head),
		Date.parse('2026-11-23T15:00Z'),
	);
	return ledgers.find((one) => one.number === number)!;
}
