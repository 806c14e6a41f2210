import { closeDatabase, rows } from '../src/lib/server/database.ts';
import { makeDemo } from './whole.ts';

const [found] = await rows<{ n: number }>('select count(*) as n from board');
if (!found!.n) {
	console.log('Filling it with demo data…');
	console.log(`  ${await makeDemo()} cards on three boards`);
}
await closeDatabase();
