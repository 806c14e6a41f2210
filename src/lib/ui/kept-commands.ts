import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Command } from '../commands.ts';

/** A command that is kept on this device until it is answered. */
export interface Kept {
	id: string;
	command: Command;
	input: object;
	person: string;
	/** When it was given, in milliseconds. */
	at: number;
}

interface Device extends DBSchema {
	/** In the order in which they were given, by a number that the device counts. */
	outbox: { key: number; value: Kept; indexes: { id: string } };
}

/** Where an earlier build kept them. */
const BEFORE = 'harrow.outbox';

let opened: Promise<IDBPDatabase<Device>> | undefined;
/** What this browser keeps of Harrow. Where it keeps nothing this fails, and what is sent lives as long as the page. */
const device = (): Promise<IDBPDatabase<Device>> =>
	(opened ??= open().catch((error: unknown) => {
		// It may be there the next time.
		opened = undefined;
		throw error;
	}));

/** A browser that may keep nothing throws at once: this fails then as it does otherwise. */
const open = async (): Promise<IDBPDatabase<Device>> =>
	openDB<Device>('harrow', 1, {
		upgrade(db) {
			db.createObjectStore('outbox', { autoIncrement: true }).createIndex('id', 'id', { unique: true });
		},
		// A newer build in another window goes before this one.
		blocking: (_now, _then, event) => (event.target as IDBDatabase).close(),
		terminated: () => (opened = undefined),
	});

/** Every command that is kept, in the order in which they were given; null where the device does not say. */
export async function keptCommands(): Promise<Kept[] | null> {
	try {
		const db = await device();
		for (const one of fromBefore()) await db.add('outbox', one).catch(() => undefined);
		return await db.getAll('outbox');
	} catch {
		return null;
	}
}

/**
 * Keeps a command; several are kept in the order in which this is called.
 * @returns whether it outlives the page
 */
export function keepCommand(command: Kept): Promise<boolean> {
	// What is not to be cloned, such as what the interface watches, is written out first.
	const plain = JSON.parse(JSON.stringify(command)) as Kept;
	return device()
		.then((db) => db.add('outbox', plain))
		.then(
			() => true,
			() => false,
		);
}

/** Lets go of a command that was answered. */
export function letGo(id: string): void {
	void device()
		.then(async (db) => {
			const work = db.transaction('outbox', 'readwrite');
			const key = await work.store.index('id').getKey(id);
			if (key !== undefined) await work.store.delete(key);
			await work.done;
		})
		.catch(() => undefined);
}

function fromBefore(): Kept[] {
	const text = localStorage.getItem(BEFORE);
	if (text === null) return [];
	localStorage.removeItem(BEFORE);
	return JSON.parse(text) as Kept[];
}
