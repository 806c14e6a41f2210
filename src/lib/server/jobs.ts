import type { Runner, TaskList } from 'graphile-worker';
import { log } from './log.ts';
import { makeDigests } from './mail/digest.ts';
import { resumeLetters, sendLetter } from './mail/send.ts';
import { mailOn } from './mail/settings.ts';
import { remind } from './remind.ts';
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
	remind: async () => {
		const told = await remind();
		if (told) log.info({ told }, 'people were reminded');
	},
	'send-mail': async (given) => {
		if (mailOn()) await sendLetter((given as { mail: string }).mail);
	},
	'resume-mail': async () => {
		if (mailOn()) await resumeLetters();
	},
	'make-digests': async () => {
		const made = mailOn() ? await makeDigests() : 0;
		if (made) log.info({ made }, 'digests were made');
	},
};
/** Minute, hour, day, month, weekday; what was missed within so long is made up for. */
const CRONTAB = `7 * * * * tell-of-days ?fill=2h&max=5&jobKey=tell-of-days&jobKeyMode=replace
* * * * * remind ?fill=2h&max=5&jobKey=remind&jobKeyMode=replace
* * * * * resume-mail ?max=5&jobKey=resume-mail&jobKeyMode=replace
*/15 * * * * make-digests ?fill=2h&max=5&jobKey=make-digests&jobKeyMode=replace`;
const AGAIN_MS = 3000;

let runner: Runner | undefined;
let starting: Promise<void> | undefined;
let stopped = false;

/** Begins to do what waits; where the database is away it is tried again. */
export function startJobs(): Promise<void> {
	return (starting = start());
}

async function start(): Promise<void> {
	if (process.env.HARROW_JOBS === 'off' || !process.env.DATABASE_URL || stopped) return;
	try {
		const { Logger, run } = await import('graphile-worker');
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
		// It ends where the database was away at the wrong moment.
		made.promise.catch(again);
		made.events.on('cron:started', () => log.info('jobs are done here'));
		if (stopped) return void (await made.stop());
		runner = made;
		for (const task of ['tell-of-days', 'make-digests'])
			await made.addJob(task, {}, { jobKey: task, jobKeyMode: 'replace' });
	} catch (error) {
		again(error as Error);
	}
}

let waiting: NodeJS.Timeout | undefined;

function again(error: Error): void {
	if (stopped) return;
	runner = undefined;
	log.warn({ error: error.message }, 'jobs wait for the database');
	clearTimeout(waiting);
	waiting = setTimeout(() => void startJobs(), AGAIN_MS).unref();
}

let ending: Promise<void> | undefined;

/** Lets what is being done end, and takes up nothing more. */
export function stopJobs(): Promise<void> {
	stopped = true;
	return (ending ??= (async () => {
		await starting;
		await runner?.stop().catch(() => undefined);
		runner = undefined;
	})());
}
