import { obey } from '../../src/lib/server/commands/door.ts';
import { database } from '../../src/lib/server/database.ts';

/** Settles a sprint as a process of its own, which is killed after so many milliseconds, or once it is done. */
const { person, id, wait } = JSON.parse(process.argv[2]!);
process.env.PGAPPNAME = 'settle-and-die';
let body = '';
for await (const chunk of process.stdin) body += chunk;
await database().query('select 1');
setTimeout(() => process.kill(process.pid, 'SIGKILL'), wait);
await obey(person, { id, command: 'SettleSprint', input: JSON.parse(body) });
process.kill(process.pid, 'SIGKILL');
