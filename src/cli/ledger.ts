import { sprintReport } from '../core/exchange/report.ts';
import { closeDatabase } from '../lib/server/database.ts';
import { boardByKey } from '../lib/server/questions/board-head.ts';
import { checkLedgers } from '../lib/server/questions/check.ts';
import { accountsOf } from '../lib/server/questions/fold.ts';
import { useOwnDatabase } from './database.ts';
import { options, refuse } from './options.ts';

const NO_DATABASE = 'Set DATABASE_URL, or start this checkout’s own database with npm start.';

/** `ledger`: the ledger of a sprint with its stints, from the database, in the form that `measure` prints. */
export async function ledger(args: string[]): Promise<number> {
	const given = options(args, ['board'], ['sprint']);
	if (typeof given === 'string') return refuse(given);
	const number = given.sprint === undefined ? null : Number(given.sprint);
	if (number !== null && !Number.isInteger(number))
		return refuse(`--sprint "${given.sprint}" is not the number of a sprint.`);
	if (!useOwnDatabase()) return refuse(NO_DATABASE);
	try {
		const head = await boardByKey(given.board!);
		if (!head) return refuse(`There is no board with the key "${given.board}".`);
		const { ledgers } = await accountsOf(head);
		// Without a number, the one that runs or ran last.
		const asked = number === null ? ledgers.at(-1) : ledgers.find((one) => one.number === number);
		if (!asked)
			return refuse(
				number === null
					? `No sprint of ${head.name} has started.`
					: `${head.name} has no sprint ${number} that was started.`,
			);
		process.stdout.write(`${JSON.stringify(sprintReport(asked), null, 1)}\n`);
		return 0;
	} finally {
		await closeDatabase();
	}
}

/** `check`: proves that every ledger of the database adds up and agrees with its tables. Exit code 1 where not. */
export async function check(args: string[]): Promise<number> {
	const given = options(args, []);
	if (typeof given === 'string') return refuse(given);
	if (!useOwnDatabase()) return refuse(NO_DATABASE);
	try {
		const { boards, sprints, stints, cards, wrong } = await checkLedgers();
		for (const sentence of wrong) process.stderr.write(`${sentence}\n`);
		process.stdout.write(
			`${boards} boards, ${cards} cards, ${sprints} sprints, ${stints} stints: ${wrong.length ? `${wrong.length} do not agree` : 'all ledgers add up'}\n`,
		);
		return wrong.length ? 1 : 0;
	} finally {
		await closeDatabase();
	}
}
