import { tick } from 'svelte';
import type { Field } from '$core/board/field';
import { readTyped, typeable } from '$core/board/typed';
import type { CardView } from '$core/pages/board';
import { count } from '../words';
import type { BoardState } from '../board/board-state.svelte';
import { readPasted } from './list-paste';
import { isCard, type Row } from './list-rows';

interface Of {
	board: BoardState;
	rows: readonly Row[];
	columns: readonly Field[];
	mayEdit: boolean;
	/** Draws a row and gives one of its cells the focus. */
	show: (row: number, column: number) => Promise<void>;
}

/** The cells of a list as somebody goes through them and types into them. */
export class ListCells {
	/** The cell in which somebody is. */
	at = $state.raw<{ row: number; column: number } | null>(null);
	typing = $state(false);
	/** What cannot be read of what was typed or pasted. */
	problem = $state('');

	constructor(private readonly of: () => Of) {}

	is(row: number, column: number): boolean {
		return this.at ? this.at.row === row && this.at.column === column : row === 0 && column === 0;
	}

	async go(row: number, column: number): Promise<void> {
		const { rows, columns, show } = this.of();
		const step = row > (this.at?.row ?? 0) ? 1 : -1;
		while (rows[row] && !isCard(rows[row]!)) row += step;
		if (!rows[row] || column < 0 || column >= columns.length) return;
		this.at = { row, column };
		await show(row, column);
	}

	/** Begins to type into a cell, where it can be typed into. */
	begin(row: number, column: number): boolean {
		const { mayEdit, columns } = this.of();
		if (!mayEdit || !typeable(columns[column]!)) return false;
		[this.at, this.typing] = [{ row, column }, true];
		return true;
	}

	keys(event: KeyboardEvent, row: number, column: number): void {
		if (this.typing || event.ctrlKey || event.metaKey || event.altKey) return;
		const to = {
			ArrowUp: [row - 1, column],
			ArrowDown: [row + 1, column],
			ArrowLeft: [row, column - 1],
			ArrowRight: [row, column + 1],
			Home: [row, 0],
			End: [row, this.of().columns.length - 1],
		}[event.key];
		if (to) {
			event.preventDefault();
			void this.go(to[0]!, to[1]!);
		} else if ((event.key === 'Enter' || event.key === 'F2') && this.begin(row, column))
			event.preventDefault();
	}

	/** Keeps what was typed; gives whether that could be read. */
	type(card: CardView, field: Field, input: HTMLInputElement): boolean {
		if (!this.typing) return true;
		const { board } = this.of();
		const read = readTyped(field, board.latest(card), input.value, board.looking);
		this.problem = read.ok ? '' : `${field.name} of ${card.number}: ${read.reason}.`;
		if (!read.ok) return false;
		this.typing = false;
		if (read.change) void board.put(card, read.change);
		return true;
	}

	/** Ends typing, and stands on the cell again. */
	async leave(): Promise<void> {
		const here = this.at;
		[this.typing, this.problem] = [false, ''];
		await tick();
		if (here) await this.go(here.row, here.column);
	}

	/** Takes what was copied from a spreadsheet into the cells from this one on; all of it or nothing. */
	async paste(event: ClipboardEvent, row: number, column: number): Promise<void> {
		const { board, rows, columns, mayEdit } = this.of();
		if (this.typing || !mayEdit) return;
		event.preventDefault();
		const read = readPasted(event.clipboardData?.getData('text/plain') ?? '', {
			...{ rows, columns, row, column, looking: board.looking },
			latest: (card) => board.latest(card),
			after: (card, change) => board.after(card, change),
		});
		this.problem = read.problem ?? '';
		if (read.problem !== undefined || !read.changes.length) return;
		// All of it is one step, and taken back as one.
		const sent = await board.putAll(read.changes);
		const text = `${count(read.changes.length, 'cell')} changed.`;
		if (sent.ok) board.tell({ tone: 'done', text, undo: sent.answer.id });
	}
}
