import pg from 'pg';
import { Problem } from './problem.ts';

/** What a broken rule of the tables means to whoever was a moment too late. By the constraint's name. */
const BY_CONSTRAINT: Record<string, [code: string, sentence: string, field?: string]> = {
	timer_pkey: [
		'timer.running',
		'Your timer was started on another card meanwhile. Stop it there first.',
		'card',
	],
	card_place: ['place.taken', 'Another card came to this place at the same moment. Try again.', 'below'],
	sprint_running: ['sprint.running', 'Another sprint was started on this board meanwhile.', 'sprint'],
	sprint_apart: ['sprint.overlaps', 'Two sprints of a board cannot share a day.', 'starts'],
	card_sprint_id_fkey: ['sprint.gone', 'Cards were put on a sprint that would go away with this.', 'sprint'],
	booking_apart: [
		'booking.taken',
		'Somebody else put them down for one of these days at the same moment. Look at the days as they are now.',
		'from',
	],
	working_week_team_id_person_id_fkey: ['person.unknown', 'This person is not in the team.', 'person'],
};

const AWAY = new Problem(
	503,
	'database.away',
	'Harrow cannot reach its database at the moment. Try again in a few seconds: what you send twice under one id is done once.',
	undefined,
	{ retryAfter: 2 },
);
const BUSY = new Problem(
	503,
	'board.busy',
	'Others are changing this at the moment and it took too long. Nothing was changed; try again in a few seconds.',
	undefined,
	{ retryAfter: 2 },
);

/**
 * What the database refused, in words: a race that was lost, a figure that it cannot hold, a wait that took too long, or
 * that it cannot be reached. Null for what is no refusal of its.
 */
export function refusalOf(error: unknown): Problem | null {
	if (error instanceof Problem || !(error instanceof Error)) return null;
	if (!(error instanceof pg.DatabaseError)) return isAway(error) ? AWAY : null;
	const { code = '', constraint = '' } = error;
	// Locks that were waited for too long, statements that took too long, and transactions that stood in each other's way.
	if (['55P03', '57014', '40001', '40P01'].includes(code)) return BUSY;
	// The database is being stopped or started, ended the connection, or has no more of them.
	if (/^(08|57P|25P03|53)/.test(code)) return AWAY;
	if (code.startsWith('23')) {
		const [named, sentence, field] = BY_CONSTRAINT[constraint] ?? [
			'changed.meanwhile',
			'Somebody else changed the same thing at the same moment. Look at it as it stands now and try again.',
		];
		return new Problem(409, named, sentence, field);
	}
	if (code.startsWith('22'))
		return new Problem(
			422,
			'invalid.input',
			'A figure, day or text in this is outside of what can be kept.',
			'input',
		);
	return null;
}

const isAway = (error: Error & { code?: string }) =>
	['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND'].includes(error.code ?? '') ||
	/^(Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error|Client was closed|Query read timeout)/i.test(
		error.message,
	);
