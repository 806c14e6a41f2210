import { now } from '../src/lib/server/time.ts';
import { closeDatabase, rows, transaction } from '../src/lib/server/database.ts';
import { talkDemo } from './talk.ts';
import { fillDemo } from './write.ts';

const [found] = await rows<{ n: number }>('select count(*) as n from board');
if (!found!.n) {
	console.log('Filling it with demo data…');
	const cards = await transaction((tx) => fillDemo(tx, now()));
	await rows('analyze');
	await talkDemo();
	console.log(`  ${cards} cards on three boards`);
}
await closeDatabase();
