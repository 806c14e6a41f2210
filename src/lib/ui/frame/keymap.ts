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
}

const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'] as const;
const shifted = (keys: readonly string[]) => keys.map((key) => `Shift+${key}`);

/** A letter that does something to what is meant. */
const letter = <D extends string>(does: D, key: string, words: string) =>
	({ does, on: [key], shown: key.toUpperCase(), words, single: true, writes: true }) as const;

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
} as const;
const OPEN = { does: 'open', on: ['Enter'], shown: 'Enter', words: 'open the card' } as const;
const HELP = { does: 'help', on: ['?', 'Shift+?'], shown: '?', words: 'these keys' } as const;

/** The keys of every place. What the page does on a key, what `?` lists and what the guide says is read from here. */
export const KEYMAPS = {
	board: [
		{ does: 'go', on: ARROWS, shown: '← → ↑ ↓', words: 'go from card to card' },
		{ does: 'go', on: ['Home', 'End'], shown: 'Home End', words: 'first and last card of the column' },
		OPEN,
		{
			does: 'move',
			on: shifted([...ARROWS, 'Home', 'End']),
			shown: 'Shift + ← → ↑ ↓',
			words: 'move the card',
			writes: true,
		},
		letter('add', 'n', 'add a card below'),
		letter('rename', 't', 'change the title'),
		letter('block', 'b', 'block or unblock'),
		letter('owners', 'o', 'owners'),
		letter('size', 's', 'size and what is left'),
		letter('time', 'l', 'log time'),
		UNDO,
		FIND,
		HELP,
	],
	backlog: [
		{
			does: 'go',
			on: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
			shown: '↑ ↓ Home End',
			words: 'go from card to card',
		},
		OPEN,
		{
			does: 'move',
			on: shifted(['ArrowUp', 'ArrowDown']),
			shown: 'Shift + ↑ ↓',
			words: 'move the card, or all picked ones',
			writes: true,
		},
		{
			does: 'move',
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
			writes: true,
		},
		{ does: 'unpick', on: ['Escape'], shown: 'Esc', words: 'pick nothing any more' },
		letter('add', 'n', 'add a card below'),
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
			on: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
			shown: '↑ ↓',
			words: 'choose in the backlog; from person to person in the rows',
		},
		{ does: 'along', on: ['ArrowLeft'], shown: '← →', words: 'from card to card in a row' },
		{
			does: 'along',
			on: ['ArrowRight'],
			shown: '→',
			words: 'in the backlog: give the card, or all picked ones, to…',
		},
		letter('give', 'g', 'give the card, or all picked ones, to…'),
		{
			does: 'hand',
			on: shifted(ARROWS),
			shown: 'Shift + ↑ ↓',
			words: 'give the card of a row to the person above or below',
			writes: true,
		},
		{
			does: 'take-out',
			on: ['Delete', 'Backspace'],
			shown: 'Delete',
			words: 'take the card out of the sprint',
			writes: true,
		},
		letter('pick', 'p', 'pick'),
		{ does: 'unpick', on: ['Escape'], shown: 'Esc', words: 'pick nothing any more' },
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
			on: ['ArrowUp', 'ArrowDown', 'Home', 'End'],
			shown: '↑ ↓ Home End',
			words: 'go from card to card',
		},
		{
			does: 'decide',
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
	walk: [
		{ does: 'on', on: ['ArrowRight', 'ArrowDown'], shown: '→ ↓', words: 'the next card' },
		{ does: 'back', on: ['ArrowLeft', 'ArrowUp'], shown: '← ↑', words: 'the one before' },
		{ does: 'note', on: ['n'], shown: 'N', words: 'write a note', single: true },
		{ does: 'end', on: ['Escape'], shown: 'Esc', words: 'end the walk' },
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
	if (!key || (key.single && !may.single) || (key.writes && !may.write)) return null;
	return key.does as Does<P>;
}
