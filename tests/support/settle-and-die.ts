import { writeSync } from 'node:fs';
import { obey } from '../../src/lib/server/door/door.ts';
import { database } from '../../src/lib/server/database.ts';

/**
 * Settles a sprint as a process of its own, which is killed after so many milliseconds, or once it is done; then it says
 * how many that took. What it shall do comes on its standard input, so that it can be started ahead.
 */
process.env.PGAPPNAME = 'settle-and-die';
await database().query('select 1');
let text = '';
for await (const chunk of process.stdin) text += chunk;
const { person, id, wait, input } = JSON.parse(text);
if (wait !== null) setTimeout(() => process.kill(process.pid, 'SIGKILL'), wait);
const began = performance.now();
await obey(person, { id, command: 'SettleSprint', input });
writeSync(1, String(performance.now() - began));
process.kill(process.pid, 'SIGKILL');
