import { Logger, run, type Runner, type TaskList } from 'graphile-worker';
import { log } from './log.ts';
import { tellOfDays } from './tell-days.ts';

/*
 * Work that is no part of an answer: it stands in the database, is done by any process that runs, once, and again with
 * growing pauses where it failed.
 */
const TASKS: TaskList = {
	'tell-of-days': async () => {
		const told = await tellOfDays();
		if (told) log.info({ told }, 'people were told of days');
	},
};
/** Minute, hour, day, month, weekday; what was missed within so long is made up for. */
const CRONTAB = '7 * * * * tell-of-days ?fill=2h&max=5&jobKey=tell-of-days&jobKeyMode=replace';
const AGAIN_MS = 10_000;

let runner: Runner | undefined;
let stopped = false;

/** Begins to do what waits; where the database is away it is tried again. */
export async function startJobs(): Promise<void> {
	if (process.env.HARROW_JOBS === 'off' || !process.env.DATABASE_URL || stopped) return;
	try {
		const made = await run({
			connectionString: process.env.DATABASE_URL,
			concurrency: 2,
			maxPoolSize: 3,
			pollInterval: 5000,
			noHandleSignals: true,
			taskList: TASKS,
			crontab: CRONTAB,
			logger: new Logger(() => (level, message) => {
				if (['error', 'warning'].includes(level)) log.warn({ message }, 'a job');
			}),
		});
		if (stopped) return void (await made.stop());
		runner = made;
		await made.addJob('tell-of-days', {}, { jobKey: 'tell-of-days', jobKeyMode: 'replace' });
	} catch (error) {
		log.warn({ error: (error as Error).message }, 'jobs wait for the database');
		setTimeout(() => void startJobs(), AGAIN_MS).unref();
	}
}

/** Lets what is being done end, and takes up nothing more. */
export async function stopJobs(): Promise<void> {
	stopped = true;
	await runner?.stop().catch(() => undefined);
	runner = undefined;
}
