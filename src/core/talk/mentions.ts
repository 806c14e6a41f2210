import { withTitle } from '../words.ts';

/** Somebody who can be named in what is said. */
export interface Nameable {
	id: string;
	name: string;
	/** What they do in the team: with it in brackets after the name, one of several of that name is meant. */
	title?: string | null;
}

/** Whom a text names. */
export interface Mentions {
	/** Ids of those whom it names and does not ask, and of those whom it asks: a sentence that names them ends in a question mark. */
	mentions: string[];
	asks: string[];
	/** It names the whole team, as `@team`; and asks it. */
	team: boolean;
	teamAsked: boolean;
	/** What stands after an @ and is nobody’s name. */
	nobody: string[];
}

const LETTER = /[\p{L}\p{N}_]/u;
/** Where a sentence ends: a mark that more follows on is none of its ends. */
const END = /[?!](?=[\s)”"’']|$)|\.(?=\s|$)|\n/u;

/**
 * Finds whom a text names with @ and a name, in any case; of names of which one begins with another, the longer one. An @
 * inside a word, as in an address, names nobody.
 */
export function mentionsIn(text: string, people: readonly Nameable[]): Mentions {
	const names = [
		...people.flatMap(({ id, name, title }) =>
			[name, ...(title ? [withTitle(name, title)] : [])].map((called) => ({
				id: id as string | null,
				name: called.toLowerCase(),
			})),
		),
		{ id: null, name: 'team' },
	].sort((a, b) => b.name.length - a.name.length);
	const small = text.toLowerCase();
	const found = new Map<string | null, boolean>();
	const nobody = new Set<string>();
	for (let at = text.indexOf('@'); at >= 0; at = text.indexOf('@', at + 1)) {
		if (at > 0 && LETTER.test(text[at - 1]!)) continue;
		const after = (name: string) => text[at + 1 + name.length] ?? ' ';
		const first = names.find(({ name }) => small.startsWith(name, at + 1) && !LETTER.test(after(name)));
		if (!first) {
			const word = /^[\p{L}][\p{L}\p{N}_’'-]*/u.exec(text.slice(at + 1))?.[0];
			if (word) nobody.add(word);
			continue;
		}
		const rest = text.slice(at + 1 + first.name.length);
		const asks = END.exec(rest)?.[0] === '?';
		// Two of the same name are both meant, where no more is said.
		for (const { id, name } of names)
			if (name === first.name) found.set(id, asks || (found.get(id) ?? false));
	}
	const ids = (asked: boolean) =>
		[...found].flatMap(([id, asks]) => (id !== null && asks === asked ? [id] : []));
	return {
		mentions: ids(false),
		asks: ids(true),
		team: found.has(null),
		teamAsked: found.get(null) ?? false,
		nobody: [...nobody],
	};
}
