import pg from 'pg';
import { maySee, shownTo } from '../../core/board/private.ts';
import type { CardView } from '../../core/pages/board.ts';
import { log } from './log.ts';
import { presentOn } from './presence.ts';
import { Problem } from './problem.ts';
import { changesAfter, type Change } from './questions/changes.ts';

/** A page that listens to a board. */
export interface Listener {
	person: string;
	/** Takes a change, as a frame of the stream; false when it takes no more of them. */
	tell(frame: Uint8Array): boolean;
	/** Ends when the page may not listen any more; fails where that cannot be known now. */
	check(): Promise<void>;
	end(): void;
}

/** A board that pages of this process listen to. */
interface Heard {
	/** Each with the number of the last event that it knows of; null until it has caught up. */
	listeners: Map<Listener, number | null>;
	/** What else was to be told to one that had not caught up, by its kind: it is told then. */
	missed: Map<Listener, Map<string, object>>;
	/** Up to which event the board was read. */
	told: number;
	reading: boolean;
	/** Something was said since the last reading began. */
	news: boolean;
}

const AGAIN_MS = 1000;
const boards = new Map<string, Heard>();
let connection: Promise<void> | undefined;
let client: pg.Client | undefined;
let stopping = false;
/** Whether this process is being stopped. */
export const isStopping = () => stopping;

/**
 * Listens to a board: first is told what happened after an event, then each change as it happens, in order.
 * @returns stops listening
 * @throws Problem when the database cannot be reached
 */
export async function listen(board: string, since: number, listener: Listener): Promise<() => void> {
	await connected();
	if (stopping)
		throw new Problem(503, 'server.stopping', 'Harrow is being stopped here. Try again in a moment.');
	const heard = boards.get(board) ?? {
		...{ listeners: new Map(), missed: new Map() },
		...{ told: since, reading: false, news: false },
	};
	boards.set(board, heard);
	heard.listeners.set(listener, null);
	const leave = () => {
		forget(heard, listener);
		if (!heard.listeners.size && boards.get(board) === heard) boards.delete(board);
	};
	try {
		const change = await changesAfter(board, since);
		deliver(heard, listener, change.seq, framesOf(change)(listener.person));
		// A part that changed since the page was read was told to nobody.
		listener.tell(framed('retrospective', change.seq));
		// What was told to others while this was read comes with the next reading, from the earlier of the two on.
		heard.told = Math.min(heard.told, change.seq);
		void spread(board);
	} catch (error) {
		leave();
		throw error;
	}
	return leave;
}

/** A change as those who listen are told it: made once for all of them, but for private cards that are not for somebody. */
function framesOf(change: Change): (person: string) => Uint8Array {
	const frame = (cards: CardView[]) =>
		new TextEncoder().encode(`id: ${change.seq}\ndata: ${JSON.stringify({ ...change, cards })}\n\n`);
	let all: Uint8Array | undefined;
	return (person) =>
		change.cards.every((card) => maySee(card, person))
			? (all ??= frame(change.cards))
			: frame(change.cards.map((card) => shownTo(card, person)));
}

function deliver(heard: Heard, listener: Listener, seq: number, frame: Uint8Array): void {
	if (!heard.listeners.has(listener)) return;
	if (listener.tell(frame)) caughtUp(heard, listener, seq);
	else letGo(heard, listener);
}

/** A page knows of everything up to an event: it is told what else there was meanwhile. */
function caughtUp(heard: Heard, listener: Listener, seq: number): void {
	heard.listeners.set(listener, seq);
	const missed = heard.missed.get(listener);
	heard.missed.delete(listener);
	for (const [kind, more] of missed ?? []) tellOf(heard, listener, kind, more);
}

/** Tells a page something that is no change of cards; where it has not caught up, once it has. */
function tellOf(heard: Heard, listener: Listener, kind: string, more: object = {}): void {
	const seen = heard.listeners.get(listener);
	if (seen === undefined) return;
	if (seen === null) {
		const missed = heard.missed.get(listener) ?? new Map<string, object>();
		heard.missed.set(listener, missed.set(kind, more));
	} else if (!listener.tell(framed(kind, seen, more))) letGo(heard, listener);
}

/** A page that sleeps is let go: when it wakes it says what it saw last, and gets the rest. */
function letGo(heard: Heard, listener: Listener): void {
	forget(heard, listener);
	listener.end();
}
function forget(heard: Heard, listener: Listener): void {
	heard.listeners.delete(listener);
	heard.missed.delete(listener);
}

/** Reads what is new on a board and tells its listeners. One reading at a time; what fails is tried again. */
async function spread(board: string): Promise<void> {
	const heard = boards.get(board);
	if (!heard) return;
	heard.news = true;
	if (heard.reading) return;
	heard.reading = true;
	try {
		while (heard.news && boards.get(board) === heard && !stopping) {
			heard.news = false;
			const from = heard.told;
			const change = await changesAfter(board, from);
			if (change.seq <= from) continue;
			heard.told = change.seq;
			const frameFor = framesOf(change);
			for (const [listener, seen] of [...heard.listeners])
				if (seen !== null && seen < change.seq)
					deliver(heard, listener, change.seq, frameFor(listener.person));
		}
	} catch (error) {
		log.warn({ error: (error as Error).message }, 'a change could not be told yet');
		setTimeout(() => void spread(board), AGAIN_MS).unref();
	} finally {
		heard.reading = false;
	}
}

/** Pages that listen only to what their person is told: those of no board. */
const alone = new Set<Listener>();
/** A frame of another kind than changes are; to whoever does not tell kinds apart it says that nothing changed. */
const framed = (kind: string, seq: number, more: object = {}) =>
	new TextEncoder().encode(
		`id: ${seq}\nevent: ${kind}\ndata: ${JSON.stringify({ ...more, seq, cards: [], board: false } satisfies Change)}\n\n`,
	);
const NOTICES = framed('notices', 0);
const CHANGED = framed('changed', 0);

/**
 * Listens to whether somebody has another notice.
 * @returns stops listening
 */
export async function listenAlone(listener: Listener): Promise<() => void> {
	await connected();
	if (stopping)
		throw new Problem(503, 'server.stopping', 'Harrow is being stopped here. Try again in a moment.');
	alone.add(listener);
	// What came before this one listened.
	listener.tell(NOTICES);
	return () => void alone.delete(listener);
}

/**
 * Listens to several boards at once: only that something happened on one of them is told.
 * @returns stops listening
 */
export async function listenToAll(
	all: readonly { id: string; seq: number }[],
	listener: Listener,
): Promise<() => void> {
	let ready = false;
	const text = new TextDecoder();
	const stops = await Promise.all(
		all.map(({ id, seq }) =>
			listen(id, seq, {
				...listener,
				check: () => listener.check(),
				end: () => listener.end(),
				// Frames of a kind tell who is here and what is to be read again elsewhere.
				tell: (frame) =>
					!ready || /^id: \d+\nevent:/.test(text.decode(frame.subarray(0, 40))) || listener.tell(CHANGED),
			}),
		),
	);
	ready = true;
	listener.tell(CHANGED);
	return () => stops.forEach((stop) => stop());
}

function tellOfNotices(person: string): void {
	for (const [, heard, listener] of everyone())
		if (listener.person === person) tellOf(heard, listener, 'notices');
	for (const listener of [...alone])
		if (listener.person === person && !listener.tell(NOTICES)) {
			alone.delete(listener);
			listener.end();
		}
}

/** Tells all who listen to a board that a part of it, such as its retrospective, is to be read again. */
function tellOfPart(board: string, part: string): void {
	const heard = boards.get(board);
	for (const listener of [...(heard?.listeners.keys() ?? [])]) tellOf(heard!, listener, part);
}

/** Who is on a board is told after a moment, so that many who come at once are told of once. */
const PAUSE_MS = 250;
const soon = new Map<string, ReturnType<typeof setTimeout>>();

function tellOfPeople(board: string): void {
	if (soon.has(board) || !boards.has(board)) return;
	const timer = setTimeout(() => {
		soon.delete(board);
		void presentOn(board).then(
			(people) => {
				const heard = boards.get(board);
				for (const listener of [...(heard?.listeners.keys() ?? [])])
					tellOf(heard!, listener, 'here', { people });
			},
			() => undefined,
		);
	}, PAUSE_MS);
	timer.unref();
	soon.set(board, timer);
}

/** Each process has one connection that the database notifies; it is made when the first page listens. */
function connected(): Promise<void> {
	connection ??= connect().catch((error: unknown) => {
		connection = undefined;
		throw error;
	});
	return connection;
}

async function connect(): Promise<void> {
	const made = new pg.Client({
		connectionString: process.env.DATABASE_URL,
		options: '-c timezone=UTC',
		connectionTimeoutMillis: 8000,
	});
	made.on('notification', ({ payload = '' }) => hear(payload));
	made.on('error', () => made.end().catch(() => undefined));
	made.on('end', () => {
		if (client !== made) return;
		client = connection = undefined;
		if (!stopping) retry();
	});
	await made.connect();
	await made.query('listen harrow');
	// The process may have been told to stop meanwhile.
	if (stopping) return made.end();
	client = made;
	// What happened while nobody listened is read now.
	for (const board of boards.keys()) void spread(board);
	for (const one of everyone()) void recheck(...one);
	for (const listener of alone) listener.tell(NOTICES);
}

function retry(): void {
	setTimeout(() => {
		if (!stopping && (boards.size || alone.size)) connected().catch(retry);
	}, AGAIN_MS).unref();
}

function* everyone(): Generator<[string, Heard, Listener]> {
	for (const [board, heard] of [...boards])
		for (const listener of [...heard.listeners.keys()]) yield [board, heard, listener];
}

/** Asks whether a page may still listen; until that is known nothing is told to it, and then what it missed. */
async function recheck(board: string, heard: Heard, listener: Listener): Promise<void> {
	const seen = heard.listeners.get(listener) ?? null;
	heard.listeners.set(listener, null);
	try {
		await listener.check();
		if (seen === null || !heard.listeners.has(listener)) return;
		const change = await changesAfter(board, seen);
		if (change.seq > seen) deliver(heard, listener, change.seq, framesOf(change)(listener.person));
		else if (heard.listeners.has(listener)) caughtUp(heard, listener, seen);
		heard.told = Math.min(heard.told, change.seq);
		void spread(board);
	} catch {
		// The page comes again by itself.
		letGo(heard, listener);
	}
}

/**
 * The database says `BOARD SEQ` when something happened on a board, `page BOARD PART` when a part of it is to be read again,
 * `here BOARD` when somebody came, went, or looks at something else there, `notice ID` when somebody has another notice, and `person ID` when a right of somebody ended.
 */
function hear(payload: string): void {
	const [first = '', second = '', third = ''] = payload.split(' ');
	if (first === 'notice') return tellOfNotices(second);
	if (first === 'page') return tellOfPart(second, third);
	if (first === 'here') return tellOfPeople(second);
	if (first !== 'person') return void spread(first);
	for (const one of everyone()) if (one[2].person === second) void recheck(...one);
	for (const listener of [...alone])
		if (listener.person === second)
			listener.check().catch(() => {
				alone.delete(listener);
				listener.end();
			});
}

/** Ends every stream and the connection, so that the process can stop. */
export async function stopLive(): Promise<void> {
	stopping = true;
	for (const [, , listener] of everyone()) listener.end();
	for (const listener of alone) listener.end();
	boards.clear();
	alone.clear();
	await client?.end().catch(() => undefined);
}
