import type { FindingKind, Remedy } from '$core/rounds/state';

/** What each finding is called. */
export const FINDINGS: Record<FindingKind, string> = {
	blocked: 'Blocked',
	'too-old': 'Too old',
	'over-limit': 'Over its limit',
	starved: 'Starved',
	'piling-up': 'Piling up',
	'over-promise': 'Over the promise',
	'nothing-to-do': 'Nothing to do',
	'no-owner': 'No owner',
	'not-sized': 'Not sized',
	late: 'Late',
	'due-soon': 'Due soon',
	'will-not-fit': 'Will not fit',
	'surprises-over': 'Surprises',
	'carried-again': 'Carried again',
	'timer-left-on': 'Timer left on',
	unanswered: 'Unanswered',
	quiet: 'Quiet',
	'sprint-over': 'Sprint over',
	'next-not-planned': 'Next not planned',
	'milestone-late': 'Milestone',
};

export const REMEDIES: Record<Remedy, string> = {
	unblock: 'Unblock',
	'wait-for': 'Waits for…',
	backlog: 'Back to the backlog',
	split: 'Split',
	owners: 'Owners',
	size: 'Size it',
	date: 'Change the date',
	pull: 'Pull it',
	'move-on': 'Move on',
	'next-sprint': 'To the next sprint',
	replenish: 'Replenish from the backlog',
	ask: 'Ask',
	answer: 'Answer',
	limit: 'Change the limit',
	'stop-timer': 'Stop it',
	board: 'Look at the board',
	plan: 'Open the plan',
	settle: 'Settle it',
	report: 'Look at its burndown',
	panorama: 'Look at the panorama',
};

/** Remedies that are done to one card. */
export const OF_A_CARD: readonly Remedy[] = [
	'pull',
	'unblock',
	'wait-for',
	'move-on',
	'owners',
	'size',
	'date',
	'ask',
	'answer',
	'split',
	'next-sprint',
	'backlog',
];

export const SEVERITIES = {
	3: { name: 'Decide now', says: 'it gets worse by the day' },
	2: { name: 'Today', says: 'before the day is over' },
	1: { name: 'This week', says: 'soon enough' },
} as const;
