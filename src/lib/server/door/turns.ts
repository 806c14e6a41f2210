import { Problem } from '../problem.ts';

const MOST_WAITING = 200;
const LONGEST_WAIT_MS = 15_000;

/** The last that waits for each key, and how many wait. */
const lines = new Map<string, { last: Promise<void>; waiting: number }>();

/**
 * Does work when all that was begun before it under one of the same keys is over. Commands on one board wait here, in
 * this process, and take no connection to the database before it is their turn; among processes the board's lock decides.
 * @param keys what the work changes, such as the boards of a team; all of them are taken at once, so nobody waits in a ring
 * @throws Problem 503 when too many wait already, or the wait takes too long
 */
export async function inTurn<T>(keys: readonly string[], work: () => Promise<T>): Promise<T> {
	const mine = keys.map((key) => {
		const line = lines.get(key) ?? { last: Promise.resolve(), waiting: 0 };
		lines.set(key, line);
		return { key, line };
	});
	if (mine.some(({ line }) => line.waiting >= MOST_WAITING)) throw busy();
	const before = Promise.all(mine.map(({ line }) => line.last));
	let over = () => {};
	const end = new Promise<void>((resolve) => (over = resolve));
	for (const { line } of mine) {
		line.last = end;
		line.waiting++;
	}
	try {
		await soon(before);
		return await work();
	} finally {
		for (const { line } of mine) line.waiting--;
		// Whoever gave up waiting still stands in the line: the next ones go on when those before it are through.
		void before.then(() => {
			over();
			for (const { key, line } of mine) if (line.last === end) lines.delete(key);
		});
	}
}

function soon(before: Promise<unknown>): Promise<unknown> {
	return new Promise((resolve, reject) => {
		const clock = setTimeout(() => reject(busy()), LONGEST_WAIT_MS);
		void before.then(() => {
			clearTimeout(clock);
			resolve(undefined);
		});
	});
}

const busy = () =>
	new Problem(
		503,
		'board.busy',
		'Too many changes wait for this board at the moment. Nothing was changed; try again in a few seconds.',
		undefined,
		{ retryAfter: 2 },
	);
