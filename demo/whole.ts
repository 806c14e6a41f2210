import { rows, transaction } from '../src/lib/server/database.ts';
import { now } from '../src/lib/server/time.ts';
import { bigPictureDemo } from './big-picture.ts';
import { lookBackDemo } from './retrospectives.ts';
import { pagesDemo } from './pages.ts';
import { talkDemo } from './talk.ts';
import { fillDemo } from './write.ts';

/**
 * Fills an empty database with the demo: half a year of history, what its people agreed looking back, and what they say now.
 * @returns how many cards it has
 */
export async function makeDemo(): Promise<number> {
	const cards = await transaction((tx) => fillDemo(tx, now()));
	await rows('analyze');
	await lookBackDemo();
	await talkDemo();
	await pagesDemo();
	await bigPictureDemo();
	return cards;
}
