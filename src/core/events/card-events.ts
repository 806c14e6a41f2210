import { dayWords } from '../calendar/day-words.ts';
import type { CardEventKind, CardThen, Happened } from './event.ts';
import type { NoticeKind } from '../notices/kinds.ts';
import { REASONS, type Reason } from './reasons.ts';

const text = (value: unknown) => String(value ?? '');

type Says = CardEventKind['says'];
type Tells = CardEventKind['tells'];
type More = Partial<Pick<CardEventKind, 'tells' | 'before' | 'after'>>;

const NOBODY: Tells = () => [];
/** Whoever watches the card is told. */
const watchers =
	(as: NoticeKind): Tells =>
	() => [{ as, to: 'watchers' }];
/** The person that it names is told. */
const named =
	(as: NoticeKind): Tells =>
	() => [{ as, to: { named: 'person' } }];

/** One that stands in the history file. */
const filed = (says: Says, more: More = {}) => ({ tells: NOBODY, inFile: true as const, says, ...more });
/** One that only the card's own history tells. */
const told = (says: Says, more: More = {}) => ({ tells: NOBODY, inFile: false as const, says, ...more });

/** `made its type Repair` or, with nothing, `took away its type`. */
const setOrNot = (set: (value: string) => string, not: string) => (event: Happened) =>
	event.value ? set(event.value) : not;

/** Everything that can happen to a card. */
export const CARD_EVENTS = {
	created: filed(({ value }) => `made this card: “${value}”.`),
	column: filed(
		({ value, after }, { place }) => {
			if (!value) return `put it back to the backlog from ${place || 'the board'}.`;
			const through = after?.letThrough
				? ` It was let through over the limit: ${text(after.letThrough)}.`
				: '';
			return `${place ? `moved it from ${place} to ${value}` : `brought it to ${value}`}.${through}`;
		},
		{
			tells: (done) =>
				done
					? [
							{ as: 'finished', to: 'giver' },
							{ as: 'waited', to: 'waiting' },
							{ as: 'finished', to: 'watchers' },
						]
					: [{ as: 'moved', to: 'watchers' }],
			before: ['column'],
			after: ['letThrough'],
		},
	),
	blocked: filed(({ value }) => `marked it as blocked: ${value}.`, { tells: watchers('blocked') }),
	unblocked: filed(() => 'unblocked it.', { tells: watchers('unblocked'), before: ['reason'] }),
	sized: filed(
		({ value }, { size, unit }: CardThen) =>
			size === null
				? `sized it at ${value}${unit}.`
				: `changed its size from ${size}${unit} to ${value}${unit}.`,
		{ before: ['size', 'left'] },
	),
	left: filed(
		({ value, after }, { unit }) =>
			`corrected what is left to ${value}${unit}${after?.reason ? `: ${text(after.reason)}` : ''}.`,
		{ before: ['left'], after: ['reason'] },
	),
	worked: filed(
		({ value, who, after }) =>
			after?.for && after.for !== who
				? `logged ${value} h on it for ${text(after.for)}.`
				: `worked ${value} h on it.`,
		{ before: ['left'], after: ['for', 'day'] },
	),
	split: filed(({ value }, { unit }) => `split off ${value}${unit} to another card.`, {
		before: ['size', 'left'],
		after: ['card'],
	}),
	sprint: filed(setOrNot((value) => `put it on sprint ${value}.`, 'took it off the sprint.')),
	planned: filed(({ value }) => (value === 'yes' ? 'marked it as planned.' : 'marked it as unplanned.'), {}),
	owner: filed(
		({ value, who, after }) => {
			const through = after?.letThrough
				? ` It was let through over the limit: ${text(after.letThrough)}.`
				: '';
			return `${who === value ? 'took it.' : `gave it to ${value}.`}${through}`;
		},
		{
			tells: named('given'),
			after: ['person', 'letThrough'],
		},
	),
	unowner: filed(({ value, who }) => (who === value ? 'no longer owns it.' : `took it from ${value}.`), {
		tells: named('taken-away'),
		after: ['person'],
	}),
	type: filed(
		setOrNot((value) => `made its type ${value}.`, 'took away its type.'),
		{ before: ['type'] },
	),
	class: filed(({ value }) => `made its class ${value === 'fixed' ? 'fixed date' : value}.`, {
		before: ['class'],
	}),
	label: filed(({ value }) => `labelled it ${value}.`),
	archived: filed(
		setOrNot((value) => `archived it: ${value}.`, 'archived it.'),
		{ tells: watchers('archived'), before: ['sprint', 'unplanned'] },
	),
	restored: filed(() => 'restored it.', { after: ['letThrough'] }),

	lane: told(
		setOrNot((value) => `put it into the lane ${value}.`, 'took it out of its lane.'),
		{ before: ['lane'], after: ['letThrough'] },
	),
	ordered: told(
		(_, { place }) => (place ? 'moved it within its column.' : 'moved it within the backlog.'),
		{},
	),
	'waits-for': told(({ value }) => `said what it waits for: ${value}.`, { before: ['waitingFor'] }),
	'time-changed': told(
		({ value, before }) =>
			value
				? `corrected ${text(before?.hours)} h that were logged on it to ${value} h.`
				: `took back ${text(before?.hours)} h that were logged on it.`,
		{ before: ['hours'], after: ['for', 'day'] },
	),
	unfinished: told(
		({ value, after }) =>
			`said why it was not finished in sprint ${text(after?.sprint)}: ${after?.words ? text(after.words) : (REASONS[value as Reason] ?? value)}.`,
		{ after: ['sprint', 'decision', 'words', 'left'] },
	),
	unlabelled: told(({ value }) => `took the label ${value} off.`),
	start: told(
		setOrNot((value) => `set its start to ${dayWords(value)}.`, 'took away its start.'),
		{ before: ['start'] },
	),
	due: told(
		setOrNot((value) => `set its due date to ${dayWords(value)}.`, 'took away its due date.'),
		{ tells: watchers('dated'), before: ['due'] },
	),
	reviewer: told(
		setOrNot((value) => `asked ${value} to review it.`, 'took away its reviewer.'),
		{ tells: named('review'), before: ['reviewer'], after: ['person'] },
	),
	'review-by': told(
		setOrNot((value) => `wants it reviewed by ${dayWords(value)}.`, 'took away the day of its review.'),
		{ before: ['due'] },
	),
	percent: told(
		setOrNot((value) => `said that ${value}% of it is done.`, 'no longer says how much of it is done.'),
		{ before: ['percent'] },
	),
	private: told(
		({ value }) => (value === 'yes' ? 'made it private.' : 'made it visible to everyone on the board.'),
		{ tells: watchers('private') },
	),
	watcher: told(({ value }) => `asked ${value} to watch it.`, { tells: named('watch'), after: ['person'] }),
	attached: told(({ value }) => `put a file on it: ${value}.`, { after: ['file'] }),
	detached: told(({ value }) => `took a file off it: ${value}.`, { after: ['file'] }),
	picture: told(setOrNot((value) => `made ${value} its picture.`, 'took its picture away.')),
	'copied-from': told(({ value }) => `copied it from ${value}.`),
	'moved-away': told(({ value }) => `moved it to another board, where it is ${value}.`),
	'moved-here': told(({ value }) => `moved it here from ${value}.`),
	initiative: told(
		setOrNot((value) => `made it part of ${value}.`, 'took it out of its initiative.'),
		{ before: ['initiative'] },
	),
	ready: told(({ value }) => (value === 'yes' ? 'marked it as ready.' : 'took back that it is ready.')),
	'part-of': told(
		setOrNot((value) => `made it a sub-card of ${value}.`, 'let it stand by itself.'),
		{ before: ['parent'] },
	),
	committed: told(({ value }) => `started sprint ${value} with it.`),
	'split-to': told(({ value }) => `split card ${value} off it.`),
	'split-from': told(({ value }) => `split it off card ${value}.`),
	field: told(
		({ value, after }) => (value ? `set ${text(after?.name)} to ${value}.` : `emptied ${text(after?.name)}.`),
		{ before: ['value', 'held'], after: ['field', 'name'] },
	),
	comment: told(({ after }) => (after?.replyTo ? 'answered.' : 'said something.'), {
		tells: () => [
			{ as: 'asked', to: { named: 'asks' } },
			{ as: 'answered', to: { named: 'answers' } },
			{ as: 'mentioned', to: { named: 'mentions' } },
			{ as: 'replied', to: { named: 'thread' } },
			{ as: 'said', to: 'watchers' },
		],
		after: ['replyTo', 'mentions', 'asks', 'answers', 'thread'],
	}),
	'comment-changed': told(() => 'changed what they said.', {
		tells: () => [{ as: 'mentioned', to: { named: 'mentions' } }],
		after: ['of', 'mentions'],
	}),
	'comment-withdrawn': told(() => 'took back what they said.', { after: ['of'] }),
	linked: told(
		({ value, after }) =>
			after?.kind === 'blocks' ? `said that it blocks ${value}.` : `linked it to ${value}.`,
		{ after: ['kind'] },
	),
	unlinked: told(({ value }) => `took away its link to ${value}.`, { before: ['kind'] }),
	'line-added': told(({ value }) => `added to its checklist: ${value}.`),
	'line-changed': told(({ value }) => `changed a checklist line to: ${value}.`, { before: ['text'] }),
	'line-done': told(({ value }) => `ticked off: ${value}.`),
	'line-undone': told(({ value }) => `has still to do: ${value}.`),
	'line-state': told(
		({ value, after }) =>
			after?.state ? `${value}: ${text(after.state)}.` : `took away the state of: ${value}.`,
		{
			before: ['state'],
			after: ['state'],
		},
	),
	'line-removed': told(({ value }) => `took off its checklist: ${value}.`),
	'lines-ordered': told(() => 'put its checklist into another order.'),
	renamed: told(({ value, before }) => `renamed it from “${text(before?.title)}” to “${value}”.`, {
		before: ['title'],
	}),
	described: told(() => 'changed its description.', { before: ['description'], after: ['description'] }),
	undone: told(() => 'took that back.', { after: ['command'] }),
} satisfies Record<string, CardEventKind>;
