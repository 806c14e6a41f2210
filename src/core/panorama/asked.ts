import { readWhere, writeWhere, type Condition } from '../board/filter.ts';

/** As what several boards are looked at together. */
export const READINGS = ['timeline', 'kinds', 'stages'] as const;
/** By what the rows of the timeline are put together. */
export const GROUPED = ['initiatives', 'boards', 'people', 'classes'] as const;
/** How fine time is drawn: pixels a day. */
export const SCALES = { days: 26, weeks: 10, months: 3.5 } as const;
export type Scale = keyof typeof SCALES;

/** What is looked at: all of it stands in the address. */
export interface Asked {
	as: (typeof READINGS)[number];
	of: (typeof GROUPED)[number];
	by: Scale;
	/** Slugs of the boards; none: all of them. */
	boards: string[];
	/** The id of an owner; empty: anyone’s. */
	who: string;
	/** Words that cards have, looked for as on a board. */
	q: string;
	/** Conditions on fields of theirs, as `offeredTogether` names them. */
	where: Condition[];
	/** Only what is late, or will be. */
	late: boolean;
}

const oneOf = <T extends string>(all: readonly T[], said: string | null): T =>
	all.find((one) => one === said) ?? all[0]!;

/** Reads an address; what it does not say, or says wrongly, is as it is at first. */
export function readAsked(said: URLSearchParams): Asked {
	return {
		as: oneOf(READINGS, said.get('as')),
		of: oneOf(GROUPED, said.get('of')),
		by: said.get('by') === 'days' || said.get('by') === 'months' ? (said.get('by') as Scale) : 'weeks',
		boards: (said.get('boards') ?? '').split(',').filter(Boolean),
		who: said.get('who') ?? '',
		q: (said.get('q') ?? '').trim(),
		where: readWhere(said),
		late: said.get('late') === 'yes',
	};
}

/** What of it chooses which cards are asked for; all else is looked at in what came. */
export type AskedFor = Pick<Asked, 'as' | 'q' | 'where' | 'who'>;

/** Reads of an address only what chooses the cards: whoever follows it need not ask again for the rest. */
export function readAskedFor(said: URLSearchParams): AskedFor {
	const as = oneOf(READINGS, said.get('as'));
	const who = as === 'kinds' ? (said.get('who') ?? '') : '';
	return { as, who, q: (said.get('q') ?? '').trim(), where: readWhere(said) };
}

/** Writes a change of what is looked at into an address; what is as at first is left out. */
export function writeAsked(said: URLSearchParams, change: Partial<Asked>): URLSearchParams {
	const after = { ...readAsked(said), ...change };
	const query = new URLSearchParams(said);
	const first = readAsked(new URLSearchParams());
	for (const key of ['as', 'of', 'by', 'who', 'q'] as const)
		if (after[key] === first[key]) query.delete(key);
		else query.set(key, after[key]);
	if (after.boards.length) query.set('boards', after.boards.join(','));
	else query.delete('boards');
	writeWhere(query, after.where);
	if (after.late) query.set('late', 'yes');
	else query.delete('late');
	return query;
}
