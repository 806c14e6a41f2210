import { dayWords } from '../calendar/day-words.ts';
import type { BoardEventKind } from './event.ts';

const shown = (value: unknown): string => {
	if (value === null || value === undefined || value === '') return 'none';
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	if (typeof value === 'string' && /^\d{4}-\d\d-\d\d$/.test(value)) return dayWords(value);
	return Array.isArray(value) ? value.join(', ') || 'none' : String(value);
};

type Values = Record<string, unknown> | null;

/** `limit from 4 to 5`, of what has changed only. */
function differences(before: Values, after: Values, words: Record<string, string>): string {
	const changed = Object.keys(words).filter(
		(key) => shown(before?.[key]) !== shown(after?.[key]) && after?.[key] !== undefined,
	);
	return (
		changed.map((key) => `${words[key]} from ${shown(before?.[key])} to ${shown(after?.[key])}`).join('; ') ||
		'nothing'
	);
}

/** A setting, told by what of it has changed. */
const setting = (
	name: (value: string) => string,
	words: Record<string, string>,
	also: readonly string[] = [],
) =>
	({
		setting: true,
		before: [...Object.keys(words), ...also],
		after: [...Object.keys(words), ...also],
		says: ({ value, before, after }) => `${name(value)}: ${differences(before, after, words)}.`,
	}) satisfies BoardEventKind;

/** Where something happened that is about no card: `on the page of Tide gauges`. */
const onPage = (after: Values) =>
	typeof after?.initiative === 'string' ? `on the page of ${after.initiative}` : 'on the board’s own page';

/** Everything that can happen to a board, its pages, its sprints and its people. */
export const BOARD_EVENTS = {
	people: {
		setting: true,
		says: ({ value, before }) =>
			before && Object.keys(before).length
				? `${value} Before: ${Object.values(before).map(shown).join(', ')}.`
				: value,
	},
	'column-changed': setting((name) => name, {
		name: 'name',
		kind: 'kind',
		limit: 'limit',
		mode: 'over the limit',
		policy: 'policy',
		hidden: 'hidden',
	}),
	'column-added': { setting: true, says: ({ value }) => `The column ${value} was added.` },
	'column-placed': {
		setting: true,
		after: ['after', 'cards'],
		says: ({ value, after }) =>
			after?.after ? `${value} stands after ${shown(after.after)} now.` : `${value} stands first now.`,
	},
	'column-retired': {
		setting: true,
		after: ['cards', 'to'],
		says: ({ value, after }) =>
			`The column ${value} was taken away${after?.cards ? `; what stood there (${shown(after.cards)}) went to ${shown(after.to)}` : ''}.`,
	},
	'clock-moved': {
		setting: true,
		before: ['column'],
		after: ['cards'],
		says: ({ value, before }) => `A card’s clock starts in ${value}, before in ${shown(before?.column)}.`,
	},
	'board-changed': setting((name) => name, {
		name: 'name',
		key: 'key',
		purpose: 'purpose',
		unit: 'sized in',
		visibleTo: 'seen by',
		changedBy: 'changed by',
		off: 'switched off',
		personLimit: 'cards in hand of a person',
		lineStates: 'states of checklist lines',
		personMode: 'over that limit',
		away: 'put away',
	}),
	'ask-page': {
		setting: true,
		before: ['on'],
		after: ['on'],
		says: ({ before, after }) =>
			after?.on ? `The ask page was ${before?.on ? 'changed' : 'opened'}.` : 'The ask page was taken away.',
	},
	'field-added': {
		setting: true,
		after: ['kind'],
		says: ({ value }) => `The field ${value} was added.`,
	},
	'field-changed': setting((name) => `Field ${name}`, {
		name: 'name',
		choices: 'choices',
		retired: 'retired',
	}),
	'lane-added': {
		setting: true,
		after: ['class'],
		says: ({ value, after }) =>
			`The lane ${value} was added${after?.class ? `; cards of the class ${shown(after.class)} stand in it` : ''}.`,
	},
	'lane-changed': setting((name) => `Lane ${name}`, {
		name: 'name',
		limit: 'limit',
		mode: 'over the limit',
		place: 'place',
		retired: 'retired',
	}),
	'face-changed': {
		setting: false,
		says: ({ value }) =>
			value ? 'What cards show was changed for everyone.' : 'Somebody chose what cards show to them.',
	},
	'lens-kept': {
		setting: false,
		says: ({ value }) =>
			value ? `The lens ${value} was kept for all.` : 'Somebody kept a lens of their own.',
	},
	'lens-dropped': {
		setting: false,
		says: ({ value }) =>
			value ? `The lens ${value} was let go.` : 'Somebody let go of a lens of their own.',
	},
	'template-kept': {
		setting: true,
		says: ({ value }) => `Kept as the template ${value}.`,
	},
	'cadence-changed': setting(() => 'Cadence', { days: 'days', weekday: 'weekday', name: 'name' }),
	'settling-changed': setting(() => 'Settling', {
		membersSettle: 'members settle',
		doneDays: 'days that done cards stay',
	}),
	'budget-changed': setting((name) => `Budget of ${name}`, { hours: 'hours', money: 'money' }),
	'initiative-changed': setting((name) => `Initiative ${name}`, {
		start: 'start',
		target: 'target',
		lead: 'led by',
		purpose: 'what it is for',
	}),
	'initiative-added': {
		setting: true,
		after: ['stage'],
		says: ({ value }) => `The initiative ${value} was added.`,
	},
	'type-changed': setting((name) => `Type ${name}`, {
		checklist: 'checklist',
		size: 'first size',
		class: 'first class',
	}),
	'name-changed': {
		setting: true,
		before: ['kind', 'name'],
		after: ['kind', 'name', 'merged', 'retired', 'cards'],
		says: ({ value, before, after }) => {
			const what = String(after?.kind ?? 'name');
			if (after?.retired !== undefined)
				return after.retired ? `The ${what} ${value} is retired.` : `The ${what} ${value} is offered again.`;
			return after?.merged
				? `The ${what} ${shown(before?.name)} became one with ${value}.`
				: `The ${what} ${shown(before?.name)} is called ${value}.`;
		},
	},
	'sprint-goal': setting((number) => `Goal of sprint ${number}`, { goal: 'goal' }),
	'sprint-hours': setting((number) => `Sprint ${number}`, { focus: 'focus', keepBack: 'keep-back' }),
	'sprint-moved': setting((number) => `Sprint ${number}`, { starts: 'start', ends: 'end' }),
	'setting-undone': {
		setting: true,
		after: ['command'],
		says: () => 'A change was taken back.',
	},
	'sprint-added': { setting: false, says: ({ value }) => `Sprint ${value} was added.` },
	'sprint-started': {
		setting: false,
		tells: [{ as: 'sprint-started', to: 'team' }],
		after: ['committed', 'focus', 'keepBack'],
		says: ({ value }) => `Sprint ${value} was started.`,
	},
	'sprint-settled': {
		setting: false,
		tells: [{ as: 'sprint-settled', to: 'team' }],
		after: ['done', 'unfinished'],
		says: ({ value }) => `Sprint ${value} was settled.`,
	},
	'retrospective-opened': {
		setting: false,
		after: ['sprint'],
		says: ({ value, after }) =>
			`Retrospective ${value} was opened${after?.sprint ? `, of sprint ${shown(after.sprint)}` : ''}.`,
	},
	'retrospective-closed': { setting: false, says: ({ value }) => `Retrospective ${value} was closed.` },
	'action-agreed': {
		setting: false,
		after: ['retrospective', 'due'],
		says: ({ value, after }) =>
			`Retrospective ${shown(after?.retrospective)} agreed: ${value}${typeof after?.due === 'string' ? `, by ${dayWords(after.due)}` : ''}.`,
	},
	'action-done': { setting: false, says: ({ value }) => `Done as agreed: ${value}.` },
	comment: {
		setting: false,
		tells: [
			{ as: 'asked', to: { named: 'asks' } },
			{ as: 'answered', to: { named: 'answers' } },
			{ as: 'mentioned', to: { named: 'mentions' } },
			{ as: 'replied', to: { named: 'thread' } },
			{ as: 'said', to: 'page' },
		],
		after: ['initiative', 'replyTo', 'mentions', 'asks', 'answers', 'thread'],
		says: ({ who, after }) => `${who ?? 'Somebody'} said something ${onPage(after)}.`,
	},
	'comment-changed': {
		setting: false,
		tells: [{ as: 'mentioned', to: { named: 'mentions' } }],
		after: ['initiative', 'of', 'mentions'],
		says: ({ who, after }) => `${who ?? 'Somebody'} changed what they had said ${onPage(after)}.`,
	},
	'comment-withdrawn': {
		setting: false,
		after: ['initiative', 'of'],
		says: ({ who, after }) => `${who ?? 'Somebody'} took back what they had said ${onPage(after)}.`,
	},
	'notes-changed': {
		setting: false,
		tells: [{ as: 'noted', to: 'page' }],
		before: ['text'],
		after: ['initiative', 'text'],
		says: ({ after }) => `The notes ${onPage(after)} were changed.`,
	},
	'budget-passed': {
		setting: false,
		tells: [
			{ as: 'budget', to: 'page' },
			{ as: 'budget', to: 'leads' },
		],
		after: ['initiative', 'hours'],
		says: ({ value, after }) =>
			`${shown(after?.initiative)} has passed its budget: ${value} h are worked of ${shown(after?.hours)} h.`,
	},
	attached: {
		setting: false,
		tells: [{ as: 'noted', to: 'page' }],
		after: ['initiative', 'file'],
		says: ({ value, after }) => `The file ${value} was put ${onPage(after)}.`,
	},
	detached: {
		setting: false,
		after: ['initiative', 'file'],
		says: ({ value, after }) => `The file ${value} was taken off, ${onPage(after)}.`,
	},
	undone: {
		setting: false,
		says: ({ value }) => `What was done with sprint ${value} was taken back.`,
	},
	'finding-dismissed': {
		setting: false,
		after: ['reason'],
		says: ({ value, after }) => `The finding ${value} was put aside: ${shown(after?.reason)}.`,
	},
	'finding-recalled': {
		setting: false,
		says: ({ value }) => `The finding ${value} was taken up again.`,
	},
} satisfies Record<string, BoardEventKind>;
