import { writeSync } from 'node:fs';
import { obey } from '../../src/lib/server/commands/door.ts';
import { database } from '../../src/lib/server/database.ts';

/**
 * Settles a sprint as a process of its own, which is killed after so many milliseconds, or once it is done; then it says
 * how many that took.
 */
const { person, id, wait } = JSON.parse(process.argv[2]!);
process.env.PGAPPNAME = 'settle-and-die';
let body = '';
for await (const chunk of process.stdin) body += chunk;
await database().query('select 1');
if (wait !== null) setTimeout(() => process.kill(process.pid, 'SIGKILL'), wait);
const began = performance.now();
await obey(person, { id, command: 'SettleSprint', input: JSON.parse(body) });
writeSync(1, String(performance.now() - began));
process.kill(process.pid, 'SIGKILL');
