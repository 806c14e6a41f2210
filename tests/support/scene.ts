import type pg from 'pg';
import { cardRow, command } from './small-board.ts';
import { runningBoard, seen, sized, type SprintBoard } from './sprint.ts';

/** What two people see before both act on it. */
export interface Scene {
	board: SprintBoard;
	/** In work, in the running sprint; waiting in it; waiting in the backlog. */
	working: string;
	lined: string;
	loose: string;
	versions: Map<string, number>;
	/** A command of the member that can be taken back, and the running sprint's and a column's version. */
	undoable: string;
	sprint: { one: number; two: number };
	column: number;
}

/** A running sprint with a card in work and one lined up, and a card in the backlog. */
export async function scene(db: pg.Pool): Promise<Scene> {
	const board = await runningBoard(db, [
		['Working', 8],
		['Lined up', 5],
	]);
	const [working, lined] = board.cards as [string, string];
	const loose = await sized(db, board, 3, 'Loose');
	const version = async (card: string) => (await cardRow(db, card)).version;
	await command(board.member, 'MoveCard', {
		card: working,
		version: await version(working),
		column: board.columns.Making,
	});
	const titled = await command(board.member, 'RenameCard', {
		card: lined,
		version: await version(lined),
		title: 'Lined up, renamed',
	});
	const { rows } = await db.query('select number, version from sprint where board_id = $1', [board.id]);
	const sprint = (number: number) => rows.find((row) => row.number === number).version as number;
	const { rows: columns } = await db.query('select version from board_column where id = $1', [
		board.columns.Check,
	]);
	return {
		board,
		...{ working, lined, loose },
		versions: new Map((await seen(db, working, lined, loose)).map((one) => [one.card, one.version])),
		undoable: titled.id,
		sprint: { one: sprint(1), two: sprint(2) },
		column: columns[0].version,
	};
}

/** A card as both saw it. */
export const asSeen = (s: Scene, id: string) => ({ card: id, version: s.versions.get(id)! });
