import { createHash } from 'node:crypto';
import EmailReplyParser from 'email-reply-parser';
import type { AddressObject, ParsedMail } from 'mailparser';
import { ANSWER_ABOVE } from '../../../core/mail/letter.ts';
import { rows } from '../database.ts';
import { obey, type Answer } from '../door/door.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { secretOf } from './settings.ts';

/** Answers to a letter are taken for so long. */
const DAYS = 60;
const MOST_CHARACTERS = 10_000;

const addresses = (field: AddressObject | AddressObject[] | undefined): string[] =>
	[field ?? []].flat().flatMap(({ value }) => value.map(({ address }) => (address ?? '').toLowerCase()));

interface Answered {
	person: Person;
	card: string | null;
	/** The initiative on whose page it was said; null: that of the board, where it is about no card. */
	initiative: string | null;
	comment: number | null;
	board: string;
	/** They may see the board; else they asked for the card. */
	sees: boolean;
}

/**
 * Takes in an answer to a letter: it is said on the card that the letter was about, by whom the letter went to. The same
 * letter again says nothing twice.
 * @param raw the letter as it came (RFC 5322)
 * @param recipient the address that it was brought to, where it is known from outside the letter
 * @returns null where it was not written by a person, and is let be
 * @throws Problem in words for whoever sent it: the address is none, the sender another one, or the letter says nothing
 */
export async function takeLetter(raw: Buffer, recipient?: string): Promise<Answer | null> {
	const { simpleParser } = await import('mailparser');
	const letter = await simpleParser(raw, { skipImageLinks: true, skipTextToHtml: true }).catch(() => null);
	const from = letter ? addresses(letter.from) : [];
	if (!letter || from.length !== 1)
		throw new Problem(422, 'mail.malformed', 'This letter cannot be read: it does not say whom it is from.');
	// What says that a program wrote it is no answer of a person, and is never answered itself.
	if (
		!['', 'no'].includes(textOf(letter, 'auto-submitted')) ||
		/^(bulk|junk|auto_reply)$/.test(textOf(letter, 'precedence'))
	)
		return null;
	const to = [recipient ?? '', ...addresses(letter.to), ...addresses(letter.cc)];
	const secret = to.map(secretOf).find((one) => one !== null);
	const answered = secret ? await answeredBy(secret) : null;
	if (!answered)
		throw new Problem(
			404,
			'mail.address_unknown',
			'No letter of Harrow has this address to answer to, or it was sent too long ago. Open the card and say it there.',
		);
	// Whoever has the address alone may not speak for whom the letter went to.
	if (from[0] !== answered.person.email.toLowerCase())
		throw new Problem(
			403,
			'mail.sender_foreign',
			'Only whom a letter was sent to can answer it, from the address that it was sent to.',
		);
	const text = answerIn(letter);
	if (!text)
		throw new Problem(422, 'mail.empty', 'The answer says nothing above the letter that it answers.');
	if (text.length > MOST_CHARACTERS)
		throw new Problem(413, 'mail.too_long', 'The answer may have at most 10,000 characters.');
	const replyTo = answered.sees ? answered.comment : null;
	if (answered.card === null)
		return obey(answered.person, {
			id: idOf(letter, secret!, text),
			command: 'CommentPage',
			input: {
				...{ board: answered.board, text },
				...(answered.initiative === null ? {} : { initiative: answered.initiative }),
				...(replyTo ? { replyTo } : {}),
			},
		});
	return obey(answered.person, {
		id: idOf(letter, secret!, text),
		command: answered.sees ? 'CommentCard' : 'SayOnAsked',
		input: { card: answered.card, text, ...(replyTo ? { replyTo } : {}) },
	});
}

const textOf = (letter: ParsedMail, header: string) => {
	const value = letter.headers.get(header);
	return typeof value === 'string' ? value.trim().toLowerCase() : '';
};

/** What somebody wrote above the letter that they answer. */
function answerIn({ text }: ParsedMail): string {
	const [above] = (text ?? '').split(ANSWER_ABOVE);
	const read = new EmailReplyParser().read(above!.replace(/\r\n/g, '\n').replace(/\0|\p{Surrogate}/gu, ''));
	return read
		.getVisibleText()
		.replace(/(^|\n)(>[^\n]*(\n|$))+/g, '$1')
		.trim();
}

/** The same letter is the same command, however often it is brought. */
function idOf(letter: ParsedMail, secret: string, text: string): string {
	const hash = createHash('sha256')
		.update(`${secret} ${letter.messageId ?? text}`)
		.digest('hex');
	return [
		hash.slice(0, 8),
		hash.slice(8, 12),
		`4${hash.slice(13, 16)}`,
		`8${hash.slice(17, 20)}`,
		hash.slice(20, 32),
	].join('-');
}

async function answeredBy(secret: string): Promise<Answered | null> {
	const [found] = await rows<Answered>(
		`select json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'email', p.email, 'scope', 'write') as person,
			n.card_id as card, n.board_id as board,
			(select i.name from page g join initiative i on i.id = g.initiative_id where g.id = n.page_id) as initiative,
			exists (select from board_right r where r.board_id = n.board_id and r.person_id = p.id) as sees, (
				select coalesce((e.after ->> 'replyTo')::bigint, e.seq) from event e
				where e.board_id = n.board_id and e.seq = any(n.seqs) and e.kind = 'comment'
				order by e.seq desc limit 1
			) as comment
		from mail m
		join person p on p.id = m.person_id
		join notice n on n.id = m.notices[1]
		where m.secret = $1 and m.kind = 'notice' and num_nonnulls(n.card_id, n.page_id) = 1 and m.made_at > $2::timestamptz - interval '${DAYS} days'`,
		[secret, now()],
	);
	return found ?? null;
}
