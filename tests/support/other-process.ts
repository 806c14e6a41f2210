import { createInterface } from 'node:readline';
import { obey } from '../../src/lib/server/door/door.ts';
import { database } from '../../src/lib/server/database.ts';
import { Problem } from '../../src/lib/server/problem.ts';

/** Another process of the application: it is sent commands, a line each, and answers each with a line. */
await database().query('select 1');
process.stdout.write('ready\n');
for await (const line of createInterface({ input: process.stdin })) {
	const { person, body } = JSON.parse(line);
	const answer = await obey(person, body).then(
		({ result }) => ({ result }),
		(error: Error) =>
			error instanceof Problem
				? { refused: { status: error.status, code: error.code, sentence: error.message } }
				: { failed: error.stack },
	);
	process.stdout.write(`${JSON.stringify(answer)}\n`);
}
