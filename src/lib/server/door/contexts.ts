import type { Lane } from '../../../core/board/lanes.ts';
import type { BoardEventName, CardEventName } from '../../../core/events/kinds.ts';
import type { FieldValues } from '../../../core/fields/own.ts';
import type { CardClock } from '../../../core/flow/clock.ts';
import type { Layout, ColumnKind } from '../../../core/flow/layout.ts';
import type { Tx } from '../database.ts';
import { notFound, Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { Keeping, type KeptTable, type Where } from './kept.ts';

/** Roles by what they may do; anyone is whoever may not see the board, and asks for something, or has. */
export const RANK = { anyone: -1, viewer: 0, member: 1, lead: 2 };
export type Role = keyof typeof RANK;

export interface PersonContext {
	tx: Tx;
	person: Person;
	at: Date;
	commandId: string;
}

/** What a handler of a team command works with: all boards of the team are locked, and each is told what was done. */
export interface TeamContext extends PersonContext {
	team: { id: string; name: string; timeZone: string };
	role: Role;
	boards: { id: string; name: string; lastSeq: number }[];
	notes: { sentence: string; before: unknown; after: unknown }[];
	/** Says in the history of every board what was changed, and what it was before where everyone may know. */
	note(sentence: string, before?: unknown, after?: unknown): void;
	/** Keeps rows for undo before they are changed; gives them as they stand. */
	keep(table: KeptTable, where: Where): Promise<Record<string, unknown>[]>;
	/** One of the team's boards, for what happens to its cards. */
	onBoard(id: string): Promise<BoardContext>;
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

/** A lane that stands. */
export interface LockedLane extends Lane {
	name: string;
	limit: number | null;
	mode: 'advise' | 'hold';
}

/** A sprint's row, in the names of the table. */
export interface SprintRow {
	id: string;
	number: number;
	goal: string;
	starts: string;
	ends: string;
	started_at: Date | null;
	closed_at: Date | null;
	focus: number | null;
	keep_back: number | null;
	raw_hours: Record<string, number> | null;
	/** The team's hours on each day from its start on, frozen when it started. */
	day_hours: number[] | null;
	goal_met: 'yes' | 'partly' | 'no' | null;
	goal_words: string;
	/** The command that settled it. */
	settled_by: string | null;
	version: number;
}

/** A board as the door found it, locked until the command ends. */
export interface LockedBoard extends Layout {
	id: string;
	team: string;
	slug: string;
	key: string;
	name: string;
	/** It is put away: nothing on it changes until it is brought back. */
	away: boolean;
	unit: 'hours' | 'points' | 'none';
	timeZone: string;
	sprintDays: number | null;
	/** How many cards one person may have in hand; null for any number. */
	personLimit: number | null;
	personMode: 'advise' | 'hold';
	columns: LockedColumn[];
	/** None where lanes are switched off. */
	lanes: LockedLane[];
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
	/** The lane that it was put in; it stands in that of its class, where its class has one. */
	lane_id: string | null;
	rank: string;
	type: string;
	class: 'expedite' | 'fixed' | 'standard' | 'background';
	size: number | null;
	left: number;
	start: string | null;
	due: string | null;
	initiative_id: string | null;
	/** Who looks it over before it is done, and by when. */
	reviewer_id: string | null;
	asker_id: string | null;
	review_by: string | null;
	/** How much of it is done, in percent, where somebody said so. */
	percent: number | null;
	/** Only its owners, its reviewer and those who watch it may see it. */
	private: boolean;
	/** The card on another board that goes on with it. */
	moved_to: string | null;
	parent_id: string | null;
	ready: boolean;
	checklist: ChecklistLine[];
	/** What it holds in fields that its board has added, by their ids. */
	fields: FieldValues;
	sprint_id: string | null;
	unplanned: boolean;
	clock: CardClock['state'];
	entered_at: Date | null;
	started_at: Date | null;
	finished_at: Date | null;
	blocked_since: Date | null;
	blocked_reason: string | null;
	waiting_for: string | null;
	let_through: string | null;
	archived_at: Date | null;
	archived_reason: string | null;
	version: number;
	/** Ids of its owners and labels, and its links to other cards. */
	owners: string[];
	labels: string[];
	links: { to: string; kind: LinkKind }[];
	/** Cards that are part of it and not archived. */
	children: number;
}

export interface ChecklistLine {
	id: string;
	text: string;
	done: boolean;
	/** How much of it, as people write it: `12 m`. */
	quantity?: string;
	/** An address where more is to be found. */
	link?: string;
	/** One of the states that the board has for lines. */
	state?: string;
}

export type LinkKind = 'blocks' | 'relates' | 'split';

/** Where an event of the past stands: when it was, and its number. */
export interface Standing {
	at: Date;
	seq: number;
}

/** A card that a command names, and the version of it that its sender saw. */
interface CardRef {
	card: string;
	version?: number;
	/** They must be able to see it, though they name no version. */
	seen?: boolean;
}

interface Note {
	card: string | null;
	/** The page of the board, or of an initiative, on which it happened. */
	page: string | null;
	kind: CardEventName | BoardEventName;
	value: string;
	before: unknown;
	after: unknown;
	/** Of an event that corrects another: where that one stood. */
	stands: Standing | null;
}

/** What a handler of a board command works with. Events noted and cards touched are written by the door at its end. */
export class BoardContext implements PersonContext {
	readonly notes: Note[] = [];
	readonly touched = new Map<string, { before: CardRow | null; version: number }>();
	readonly kept: Keeping;
	/** The command is about a whole sprint: it goes on with private cards too, which its sender does not see. */
	blind = false;
	/** Of a command about two boards: the other one. */
	other: BoardContext | null = null;

	constructor(
		readonly tx: Tx,
		readonly person: Person,
		readonly at: Date,
		readonly commandId: string,
		readonly board: LockedBoard,
		readonly role: Role,
	) {
		this.kept = new Keeping(tx);
	}

	/** Keeps rows beside cards for undo before they are changed; gives them as they stand. */
	keep(table: KeptTable, where: Where): Promise<Record<string, unknown>[]> {
		return this.kept.keep(table, where);
	}

	/**
	 * A card of this board that the command is about to change, as it stands.
	 * @param version what the sender saw; another version is refused
	 * @param seen whether they must be able to see it, though they name no version
	 */
	async card(id: string, version?: number, seen?: boolean): Promise<CardRow> {
		return (await this.cards([{ card: id, version, seen }]))[0]!;
	}

	/** Several cards that the command is about to change, in the order given, each named once. */
	async cards(refs: readonly CardRef[]): Promise<CardRow[]> {
		const cards = await this.look(refs);
		for (const card of cards) this.touch(card);
		return cards;
	}

	/** The same for cards that the command only looks at. */
	async look(refs: readonly CardRef[]): Promise<CardRow[]> {
		const { rows } = await this.tx.query<CardRow & { seen: boolean }>({
			name: 'command-cards',
			text: `select c.*,
					array(select person_id::text from card_owner where card_id = c.id order by person_id) as owners,
					array(select label_id::text from card_label where card_id = c.id order by label_id) as labels,
					(select coalesce(json_agg(json_build_object('to', to_id, 'kind', kind) order by to_id, kind), '[]')
					from card_link where from_id = c.id) as links,
					(select count(*) from card k where k.parent_id = c.id and k.archived_at is null) as children,
					may_see(c, $3) as seen
				from card c
				where c.id = any($1::uuid[]) and c.board_id = $2
				order by c.id
				for update of c`,
			values: [refs.map((ref) => ref.card), this.board.id, this.person.id],
		});
		const found = new Map(rows.map(({ seen, ...card }) => [card.id, { card, seen }]));
		const cards: CardRow[] = [];
		for (const ref of refs) {
			const known = found.get(ref.card);
			// What somebody names by a version they have seen.
			const mustSee = ref.version !== undefined || ref.seen;
			if (!known || (mustSee && !known.seen && !this.blind)) throw notFound('card');
			const { card } = known;
			if (ref.version !== undefined && card.version !== ref.version)
				throw await this.changed(card, known.seen);
			cards.push(card);
		}
		return cards;
	}

	/** Keeps a card as it was, for undo. Each touched card's version goes up by one in the command. */
	touch(card: CardRow): void {
		if (!this.touched.has(card.id))
			this.touched.set(card.id, { before: { ...card }, version: card.version + 1 });
	}

	/** Marks touched cards as changed: every command writes their new version once. */
	async changedNow(cards: readonly { id: string }[]): Promise<void> {
		await this.tx.query('update card set version = version + 1 where id = any($1::uuid[])', [
			cards.map((card) => card.id),
		]);
	}

	/** A sprint of this board by its number, locked and kept for undo. */
	async sprint(number: number, version?: number): Promise<SprintRow> {
		const sprint = (await this.sprintRows()).find((known) => known.number === number);
		if (!sprint) throw new Problem(422, 'sprint.unknown', `This board has no sprint ${number}.`, 'sprint');
		if (version !== undefined && sprint.version !== version)
			throw new Problem(
				409,
				'sprint.changed',
				`Sprint ${number} was changed after you last saw it. Look at it as it stands now and try again.`,
				'version',
			);
		await this.keep('sprint', { id: sprint.id });
		return sprint;
	}

	/** All sprints of the board, by number. */
	async sprintRows(): Promise<SprintRow[]> {
		const { rows } = await this.tx.query<SprintRow>(
			'select * from sprint where board_id = $1 order by number for update',
			[this.board.id],
		);
		return rows;
	}

	/** A column of this board. */
	column(id: string): LockedColumn {
		const column = this.board.columns.find((known) => known.id === id);
		if (!column) throw new Problem(422, 'column.unknown', 'This board has no such column.', 'column');
		return column;
	}

	/** A lane of this board. */
	lane(id: string): LockedLane {
		const lane = this.board.lanes.find((known) => known.id === id);
		if (!lane) throw new Problem(422, 'lane.unknown', 'This board has no such lane.', 'lane');
		return lane;
	}

	/** The name of a place: a column's, or the empty text of the history file for the backlog and for a column that was taken away. */
	placeName(id: string | null): string {
		return this.board.columns.find((known) => known.id === id)?.name ?? '';
	}

	/** Notes an event of a card, or (null) of the board, to be written with the command. */
	note<C extends string | null>(
		card: C,
		kind: C extends string ? CardEventName : BoardEventName,
		value = '',
		before: unknown = null,
		after: unknown = null,
		stands: Standing | null = null,
	): void {
		this.notes.push({ card, page: null, kind, value, before, after, stands });
	}

	/** Notes what happens on a page of the board, or of one of its initiatives. */
	noteOnPage(
		page: { id: string; initiative: string | null },
		kind: BoardEventName,
		value: string,
		after: Record<string, unknown> = {},
		before: unknown = null,
	): void {
		const of = page.initiative === null ? {} : { initiative: page.initiative };
		this.notes.push({
			...{ card: null, page: page.id, kind, value, before },
			...{ after: { ...after, ...of }, stands: null },
		});
	}

	/** Refuses when the card is archived: it is restored first. */
	unarchived(card: CardRow): CardRow {
		if (!card.archived_at) return card;
		throw new Problem(409, 'card.archived', `Card ${card.number} is archived. Restore it first.`, 'card');
	}

	private async changed(card: CardRow, seen: boolean): Promise<Problem> {
		const { rows } = await this.tx.query<{ id: string; name: string }>(
			`select p.id, p.name from event e join person p on p.id = e.actor_id where e.card_id = $1 order by e.seq desc limit 1`,
			[card.id],
		);
		const who = rows[0] && rows[0].id !== this.person.id ? rows[0].name : 'Another window';
		return new Problem(
			409,
			'card.changed',
			`${who} changed card ${card.number} after you last saw it. Look at it as it stands now and try again.`,
			'version',
			{ version: card.version, ...(seen ? { now: shownNow(card) } : {}) },
		);
	}
}

/** What a card says now, told to whoever would have written over it. */
const shownNow = ({ title, description, start, due, size, left, percent }: CardRow) => ({
	...{ title, description, start, due, size, left, percent },
});
