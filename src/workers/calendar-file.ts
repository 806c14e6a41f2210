import { parentPort } from 'node:worker_threads';
import { zoneOf } from '../core/calendar/zone.ts';
import { readCalendar } from '../core/exchange/calendar-file.ts';

/** Reads a calendar file apart from everything else: its rules may go on for ever. */
parentPort!.once('message', ({ text, zone, today }: { text: string; zone: string; today: number }) =>
	parentPort!.postMessage({ answer: readCalendar(text, zoneOf(zone), today) }),
);
