import { randomUUID } from 'node:crypto';
import {
	NOTICE_KINDS,
	NOTICE_NAMES,
	type NoticeChoices,
	type NoticeKind,
} from '../../../core/notices/kinds.ts';
import { stopWords } from '../../../core/mail/letter.ts';
import { rows } from '../database.ts';
import { obey } from '../door/door.ts';
import type { Person } from '../sign-in.ts';

interface Stopped {
	person: Person;
	about: NoticeKind | 'digest';
	choices: NoticeChoices;
}

async function letterBy(secret: string): Promise<Stopped | null> {
	const [found] = await rows<Stopped>(
		`select json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'email', p.email, 'scope', 'write') as person,
			m.about, p.notices as choices
		from mail m join person p on p.id = m.person_id
		where m.secret = $1 and m.about is not null`,
		[secret],
	);
	return found ?? null;
}

/**
 * Which letters a link stops, in words; null where the link is none.
 * @param secret of the letter in which it stood
 */
export async function stoppedBy(secret: string): Promise<{ name: string; what: string } | null> {
	const found = await letterBy(secret);
	return found && { name: found.person.name, what: stopWords(found.about) };
}

/**
 * Sends whom a letter went to no more letters of its kind: they are told in Harrow as before.
 * @returns whether the link is one
 */
export async function stopLetters(secret: string): Promise<boolean> {
	const found = await letterBy(secret);
	if (!found) return false;
	const { person, about, choices } = found;
	const way = about === 'digest' ? 'digest' : 'mail';
	const meant = (kind: string) => about === 'digest' || kind === about || kind === 'all';
	const without = (chosen: object) =>
		Object.fromEntries(
			Object.entries(chosen).map(([kind, as]: [string, unknown]) => [
				kind,
				as === way && meant(kind) ? 'harrow' : as,
			]),
		);
	// What one is sent because it is so for everyone stops only where one's own choice says so.
	const usual = NOTICE_NAMES.filter((kind) => meant(kind) && (NOTICE_KINDS[kind].way as string) === way);
	const kinds = {
		...Object.fromEntries(usual.map((kind) => [kind, 'harrow'])),
		...without(choices.kinds ?? {}),
	};
	const boards = Object.fromEntries(
		Object.entries(choices.boards ?? {}).map(([board, chosen]) => [board, without(chosen)]),
	);
	await obey(person, { id: randomUUID(), command: 'ChooseNotices', input: { ...choices, kinds, boards } });
	return true;
}
