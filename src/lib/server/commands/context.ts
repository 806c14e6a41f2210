import type { CardClock } from '../../../core/flow/clock.ts';
import type { Layout, ColumnKind } from '../../../core/flow/layout.ts';
import type { Tx } from '../database.ts';
import { notFound, Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';

export interface PersonContext {
	tx: Tx;
	person: Person;
	at: Date;
}

export interface LockedColumn {
	id: string;
	name: string;
	kind: ColumnKind;
	limit: number | null;
	mode: 'advise' | 'hold';
	policy: string;
	version: number;
}

/** A board as the door found it, locked until the command ends. */
export interface LockedBoard extends Layout {
	id: string;
	team: string;
	key: string;
	unit: 'hours' | 'points' | 'none';
	columns: LockedColumn[];
	runningSprint: { id: string; number: number } | null;
	lastSeq: number;
	lastNumber: number;
}

/** A card's row, in the names of the table. */
export interface CardRow {
	id: string;
	board_id: string;
	number: number;
	title: string;
	description: string;
	column_id: string | null;
	rank: string;
	type: string;
	class: 'expedite' | 'fixed' | 'standard' | 'background';
	size: number | null;
	left: number;
	due: string | null;
	sprint_id: string | null;
	unplanned: boolean;
	clock: CardClock['state'];
	entered_at: Date | null;
	started_at: Date | null;
	finished_at: Date | null;
	blocked_since: Date | null;
	blocked_reason: string | null;
	let_through: string | null;
	archived_at: Date | null;
	archived_reason: string | null;
	version: number;
}

interface Note {
	card: string | null;
	kind: string;
	value: string;
	before: unknown;
	after: unknown;
}

/** What a handler of a board command works with. Events noted and cards touched are written by the door at its end. */
export class BoardContext implements PersonContext {
	readonly notes: Note[] = [];
	readonly touched = new Map<string, { before: Record<string, unknown> | null; version: number }>();

	constructor(
		readonly tx: Tx,
		readonly person: Person,
		readonly at: Date,
		readonly commandId: string,
		readonly board: LockedBoard,
		readonly role: 'viewer' | 'member' | 'lead',
	) {}

	/**
	 * A card of this board that the command is about to change, as it stands.
	 * @param version what the sender saw; another version is refused
	 */
	async card(id: string, version?: number): Promise<CardRow> {
		const { rows } = await this.tx.query<CardRow & { owners: string[] }>({
			name: 'command-card',
			text: `select c.*, array(select person_id::text from card_owner where card_id = c.id) as owners
				from card c
				where c.id = $1 and c.board_id = $2
				for update of c`,
			values: [id, this.board.id],
		});
		const card = rows[0];
		if (!card) throw notFound('card');
		if (version !== undefined && card.version !== version) throw await this.changed(card);
		if (!this.touched.has(id)) this.touched.set(id, { before: { ...card }, version: card.version + 1 });
		return card;
	}

	/** A column of this board. */
	column(id: string): LockedColumn {
		const column = this.board.columns.find((known) => known.id === id);
		if (!column) throw new Problem(422, 'column.unknown', 'This board has no such column.', 'column');
		return column;
	}

	/** The name of a place: a column's, or the empty text of the history file for the backlog. */
	placeName(id: string | null): string {
		return id === null ? '' : this.column(id).name;
	}

	/** Notes an event, to be written with the command. */
	note(card: string | null, kind: string, value = '', before: unknown = null, after: unknown = null): void {
		this.notes.push({ card, kind, value, before, after });
	}

	private async changed(card: CardRow): Promise<Problem> {
		const { rows } = await this.tx.query<{ name: string }>(
			`select p.name from event e join person p on p.id = e.actor_id where e.card_id = $1 order by e.seq desc limit 1`,
			[card.id],
		);
		const who = rows[0] && rows[0].name !== this.person.name ? rows[0].name : 'Another window';
		return new Problem(
			409,
			'card.changed',
			`${who} changed card ${card.number} after you last saw it. Look at it as it stands now and try again.`,
			'version',
			{ version: card.version },
		);
	}
}
