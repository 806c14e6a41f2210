/** A key of a place: what is pressed, how that is shown, and what it does, for the page and in words. */
export interface Key<Does extends string = string> {
	does: Does;
	/** As the browser names them: `n`, `ArrowUp`, `Shift+Home`, `Control+z`. Letters are small. */
	on: readonly string[];
	shown: string;
	words: string;
	/** A single letter or digit: where somebody has switched those off, it does nothing. */
	single?: true;
	/** It changes something: viewers have it not. */
	writes?: true;
	/** It is done to a card: find-or-do offers it where one has the focus. */
	card?: true;
	/** How to get about, not something to do: find-or-do leaves it out. */
	keyOnly?: true;
}

const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'] as const;
const shifted = (keys: readonly string[]) => keys.map((key) => `Shift+${key}`);

/** A letter that does something to what is meant. */
const letter = <D extends string>(does: D, key: string, words: string) =>
	({ does, on: [key], shown: key.toUpperCase(), words, single: true, writes: true, card: true }) as const;

/** The same where it is done without a card as well. */
const anywhere = <D extends string>(does: D, key: string, words: string) => {
	const { card: _card, ...rest } = letter(does, key, words);
	return rest;
};

const UNDO = {
	does: 'undo',
	on: ['Control+z'],
	shown: 'Ctrl Z',
	words: 'take back the last thing you did',
} as const;
const FIND = {
	does: 'find',
	on: [' '],
	shown: 'Space',
	words: 'find a card or do something',
	single: true,
	keyOnly: true,
} as const;
const OPEN = { does: 'open', on: ['Enter'], shown: 'Enter', words: 'open the card', keyOnly: true } as const;
const HELP = { does: 'help', on: ['?', 'Shift+?'], shown: '?', words: 'these keys' } as const;

const PICK = {
	does: 'pick',
	on: ['p', 'Shift+p'],
	shown: 'P',
	words: 'pick; with Shift from the last picked to this one',
	single: true,
	writes: true,
	card: true,
} as const;
const UNPICK = {
	does: 'unpick',
	keyOnly: true,
	on: ['Escape'],
	shown: 'Esc',
	words: 'pick nothing any more',
} as const;

/** The keys of every place. What the page does on a key, what `?` lists and what the guide says is read from here. */
export const KEYMAPS = {
	notices: [
		{
			does: 'go',
			keyOnly: true,
			on: ['ArrowUp', 'ArrowDown'],
			shown: '↑ ↓',
			words: 'go from notice to notice',
		},
		{ ...OPEN, words: 'open what it is about' },
		{ does: 'answer', on: ['a'], shown: 'A', words: 'answer what was said', single: true },
		{ does: 'away', on: ['Delete'], shown: 'Del', words: 'put the notice away' },
		FIND,
		HELP,
	],
	board: [
		{ does: 'go', keyOnly: true, on: ARROWS, shown: '← → ↑ ↓', words: 'go from card to card' },
		{
			does: 'go',
			keyOnly: true,
			on: ['Home', 'End'],
			shown: 'Home End',
			words: 'first and last card of the column',
		},
		OPEN,
		{
			does: 'move',
			keyOnly: true,
			on: shifted([...ARROWS, 'Home', 'End']),
			shown: 'Shift + ← → ↑ ↓',
			words: 'move the card',
			writes: true,
		},
		anywhere('add', 'n', 'add a card below'),
		letter('send', 'm', 'send it to another place'),
		PICK,
		UNPICK,
		letter('rename', 't', 'change the title'),
		letter('block', 'b', 'block or unblock'),
		letter('owners', 'o', 'owners'),
		letter('size', 's', 'size and what is left'),
		letter('time', 'l', 'log time'),
		{
			does: 'past',
			on: ['z'],
			shown: 'Z',
			words: 'as it stood at a moment; from there back to now',
			single: true,
		},
		UNDO,
		FIND,
		HELP,
	],
	backlog: [
		{
			does: 'go',
			keyOnly: true,
			on: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
			shown: '↑ ↓ Home End',
			words: 'go from card to card',
		},
		OPEN,
		{
			does: 'move',
			keyOnly: true,
			on: shifted(['ArrowUp', 'ArrowDown']),
			shown: 'Shift + ↑ ↓',
			words: 'move the card, or all picked ones',
			writes: true,
		},
		{
			does: 'move',
			keyOnly: true,
			on: shifted(['Home', 'End']),
			shown: 'Shift + Home End',
			words: 'move to the top, to the end',
			writes: true,
		},
		letter('position', 'g', 'move to a position'),
		{
			does: 'pick',
			on: ['p', 'Shift+p'],
			shown: 'P',
			words: 'pick; with Shift from the last picked to this one',
			single: true,
			card: true,
			writes: true,
		},
		UNPICK,
		anywhere('add', 'n', 'add a card below'),
		letter('size', 's', 'size'),
		letter('owners', 'o', 'owners'),
		letter('labels', 'l', 'labels'),
		letter('type', 't', 'type'),
		letter('initiative', 'i', 'initiative'),
		letter('ready', 'r', 'ready or not'),
		letter('split', 'x', 'split'),
		letter('pull', 'u', 'pull into the first column, on a board without sprints'),
		UNDO,
		FIND,
		HELP,
	],
	plan: [
		{
			does: 'go',
			keyOnly: true,
			on: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
			shown: '↑ ↓',
			words: 'choose in the backlog; from person to person in the rows',
		},
		{ does: 'along', keyOnly: true, on: ['ArrowLeft'], shown: '← →', words: 'from card to card in a row' },
		{
			does: 'along',
			keyOnly: true,
			on: ['ArrowRight'],
			shown: '→',
			words: 'in the backlog: give the card, or all picked ones, to…',
		},
		letter('give', 'g', 'give the card, or all picked ones, to…'),
		{
			does: 'hand',
			keyOnly: true,
			on: shifted(ARROWS),
			shown: 'Shift + ↑ ↓',
			words: 'give the card of a row to the person above or below',
			writes: true,
		},
		{
			does: 'take-out',
			card: true,
			on: ['Delete', 'Backspace'],
			shown: 'Delete',
			words: 'take the card out of the sprint',
			writes: true,
		},
		letter('pick', 'p', 'pick'),
		UNPICK,
		letter('size', 's', 'size and what is left'),
		letter('owners', 'o', 'owners'),
		OPEN,
		UNDO,
		FIND,
		HELP,
	],
	settle: [
		{
			does: 'go',
			keyOnly: true,
			on: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
			shown: '↑ ↓ Home End',
			words: 'go from card to card',
		},
		{
			does: 'decide',
			keyOnly: true,
			on: ['1', '2', '3', '4'],
			shown: '1 2 3 4',
			words: 'carry, split, backlog, drop; of all picked cards where this one is picked',
			single: true,
			writes: true,
		},
		letter('reason', 'r', 'choose the reason'),
		letter('pick', 'p', 'pick'),
		UNDO,
		FIND,
		HELP,
	],
	panorama: [
		{
			does: 'go',
			keyOnly: true,
			on: ['ArrowUp', 'ArrowDown'],
			shown: '↑ ↓',
			words: 'go from row to row',
		},
		{ does: 'first', keyOnly: true, on: ['Home'], shown: 'Home', words: 'the first row' },
		{ does: 'last', keyOnly: true, on: ['End'], shown: 'End', words: 'the last row' },
		{
			does: 'along',
			keyOnly: true,
			on: ['ArrowLeft', 'ArrowRight'],
			shown: '← →',
			words: 'along a dependency; folds and unfolds what is put together',
		},
		{
			does: 'move',
			keyOnly: true,
			on: shifted(['ArrowLeft', 'ArrowRight']),
			shown: 'Shift + ← →',
			words: 'move the card by a working day, to be looked at first',
			writes: true,
		},
		letter('longer', '.', 'make it a working day longer'),
		letter('shorter', ',', 'make it a working day shorter'),
		{ does: 'open', on: ['Enter'], shown: 'Enter', words: 'open the card; keep other dates', keyOnly: true },
		{ does: 'leave', on: ['Escape'], shown: 'Esc', words: 'leave it where it was', keyOnly: true },
		UNDO,
		HELP,
	],
	days: [
		{ does: 'go', keyOnly: true, on: ARROWS, shown: '← → ↑ ↓', words: 'go from day to day' },
		{
			does: 'choose',
			keyOnly: true,
			on: shifted(['ArrowLeft', 'ArrowRight']),
			shown: 'Shift + ← →',
			words: 'choose several days',
		},
		{ does: 'open', on: ['Enter'], shown: 'Enter', words: 'put somebody down for the day', keyOnly: true },
		{ does: 'leave', on: ['Escape'], shown: 'Esc', words: 'close what is open', keyOnly: true },
		UNDO,
		HELP,
	],
	walk: [
		{ does: 'on', keyOnly: true, on: ['ArrowRight', 'ArrowDown'], shown: '→ ↓', words: 'the next card' },
		{ does: 'back', keyOnly: true, on: ['ArrowLeft', 'ArrowUp'], shown: '← ↑', words: 'the one before' },
		{ does: 'note', on: ['n'], shown: 'N', words: 'write a note', single: true },
		{ does: 'end', keyOnly: true, on: ['Escape'], shown: 'Esc', words: 'end the walk' },
	],
} as const satisfies Record<string, readonly Key[]>;

export type Place = keyof typeof KEYMAPS;
/** What can be done by key in a place. */
export type Does<P extends Place> = (typeof KEYMAPS)[P][number]['does'];

/** A key as keymaps name it. */
function named(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>): string {
	const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
	const held = [
		...(event.ctrlKey || event.metaKey ? ['Control'] : []),
		...(event.altKey ? ['Alt'] : []),
		...(event.shiftKey ? ['Shift'] : []),
	];
	return [...held, key].join('+');
}

/**
 * What a key does in a place; null where it does nothing there.
 * @param may whether single keys are on, and whether the person may change something
 */
export function pressed<P extends Place>(
	place: P,
	event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
	may: { single: boolean; write: boolean },
): Does<P> | null {
	const name = named(event);
	// A letter is the same with Shift, unless that means something else there.
	const plain = event.key.length === 1 && name.startsWith('Shift+') ? name.slice('Shift+'.length) : name;
	const list: readonly Key[] = KEYMAPS[place];
	const key = list.find(({ on }) => on.includes(name)) ?? list.find(({ on }) => on.includes(plain));
	const single = may.single || chosen.has(event);
	if (!key || (key.single && !single) || (key.writes && !may.write)) return null;
	return key.does as Does<P>;
}

/** The place that an address leads to, where it has keys of its own. */
export function placeAt(path: string, walking: boolean): Place | null {
	if (path === '/notices') return 'notices';
	const ofTeam = /^\/teams\/[^/]+\/(?:people\/)?(panorama|days)\/?$/.exec(path)?.[1];
	if (ofTeam) return ofTeam as Place;
	const place =
		/^\/boards\/[^/]+(?:\/(\w+))?\/?$/.exec(path)?.[1] ?? (path.startsWith('/boards/') ? 'board' : '');
	if (place === 'rounds') return walking ? 'walk' : null;
	return place in KEYMAPS && !['walk', 'panorama', 'days'].includes(place) ? (place as Place) : null;
}

/** Keys that somebody chose from a list instead of pressing them: they do something even where single keys are off. */
const chosen = new WeakSet<object>();

/** Does what a key does, as if it were pressed where the focus is. */
export function choose({ on }: Pick<Key, 'on'>, at: Element): void {
	const held = on[0]!.split('+');
	const event = new KeyboardEvent('keydown', {
		key: held.pop()!,
		ctrlKey: held.includes('Control'),
		shiftKey: held.includes('Shift'),
		bubbles: true,
		cancelable: true,
	});
	chosen.add(event);
	at.dispatchEvent(event);
}

/** What can be done in a place by choosing it from a list, and with which key else. */
export function toDo(place: Place, may: { write: boolean; card: boolean }): Key[] {
	const list: readonly Key[] = KEYMAPS[place];
	return list.filter((key) => !key.keyOnly && (may.write || !key.writes) && (may.card || !key.card));
}
