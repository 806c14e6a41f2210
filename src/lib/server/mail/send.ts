import nodemailer, { type SendMailOptions, type Transporter } from 'nodemailer';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { quietUntil } from '../../../core/notices/hours.ts';
import type { NoticeChoices } from '../../../core/notices/kinds.ts';
import { wayOf } from '../../../core/notices/kinds.ts';
import {
	digestLetter,
	letterHtml,
	letterText,
	noticeLetter,
	type Letter,
} from '../../../core/mail/letter.ts';
import { rows } from '../database.ts';
import { noticesById } from '../questions/notices.ts';
import { now } from '../time.ts';
import { queueLetter } from './post.ts';
import { fromAddress, origin, replyAddress } from './settings.ts';

interface Claimed {
	id: string;
	kind: 'notice' | 'digest' | 'invitation' | 'reset';
	person: string | null;
	name: string | null;
	address: string | null;
	zone: string | null;
	choices: NoticeChoices | null;
	notices: string[];
	words: Letter | null;
	secret: string;
}

/** So long somebody may be at sending a letter before another one takes it up. */
const CLAIM_SECONDS = 120;
/** A server that does not answer is given up for now after so long. */
const SMTP_MS = { connectionTimeout: 8000, greetingTimeout: 8000, socketTimeout: 12_000 };

let transport: { url: string; made: Transporter } | undefined;

function server(): Transporter {
	const url = process.env.HARROW_SMTP!;
	if (transport?.url !== url) {
		transport?.made.close();
		transport = { url, made: nodemailer.createTransport({ url, ...SMTP_MS } as object) };
	}
	return transport.made;
}

/**
 * Sends a letter, if nobody has and nobody is at it: under the same Message-ID however often it is tried. What it tells is
 * read now: what its reader may not see any more, or has read in Harrow meanwhile, is not in it.
 * @throws Error when the mail server cannot be reached or says to try later; a letter that it refuses for good is dropped
 */
export async function sendLetter(id: string): Promise<void> {
	const [mail] = await rows<Claimed>(
		`with claimed as (
			update mail set claimed_at = clock_timestamp(), tries = tries + 1
			where id = $1 and sent_at is null and dropped_at is null
				and (claimed_at is null or claimed_at < clock_timestamp() - interval '${CLAIM_SECONDS} seconds')
			returning *
		)
		select m.id, m.kind, m.person_id as person, p.name, coalesce(m.to_address, p.email) as address, p.time_zone as zone,
			p.notices as choices, m.notices, m.words, m.secret
		from claimed m left join person p on p.id = m.person_id`,
		[id],
	);
	if (!mail) return;
	const until =
		mail.kind === 'notice' ? quietUntil(mail.choices?.quiet, zoneOf(mail.zone!), now().getTime()) : null;
	if (until !== null) return waits(mail.id, Math.ceil((until - now().getTime()) / 1000));
	const [letter, about, told] = await letterOf(mail);
	if (!letter) return drop(mail.id, 'Everything it would have said was read, or put away, or is over.');
	const answers = about !== null && about !== 'digest' && replyAddress(mail.secret) !== null;
	try {
		await server().sendMail(messageOf(mail, letter, answers));
	} catch (error) {
		const { responseCode, message } = error as Error & { responseCode?: number };
		// A server that says 5xx will say it again: the letter is not for it.
		if (responseCode && responseCode >= 500) return drop(mail.id, message, true);
		await rows('update mail set claimed_at = null, trouble = $2 where id = $1', [
			mail.id,
			message.slice(0, 500),
		]);
		throw error;
	}
	await rows(
		`with told as (update notice set mailed_at = $3 where id = any($4))
		update mail set sent_at = $3, about = $2, words = null, trouble = null where id = $1`,
		[mail.id, about, now(), told],
	);
}

/** What a letter says now, as which kind, and which notices it tells. */
async function letterOf(mail: Claimed): Promise<[Letter | null, string | null, string[]]> {
	if (mail.words) return [mail.words, null, []];
	const found = await noticesById(mail.person!, mail.notices);
	const unread = found.filter(({ read, away }) => !read && !away);
	const given = { origin: origin(), stop: `${origin()}/stop/${mail.secret}` };
	if (mail.kind === 'digest') return [digestLetter(unread, given), 'digest', unread.map(({ id }) => id)];
	const [notice] = unread;
	if (!notice || wayOf(mail.choices ?? {}, notice.kind, notice.board.id) === 'none') return [null, null, []];
	const answers = replyAddress(mail.secret) !== null;
	return [noticeLetter(notice, { ...given, answers }), notice.kind, [notice.id]];
}

function messageOf(mail: Claimed, letter: Letter, answers: boolean): SendMailOptions {
	const reply = answers ? replyAddress(mail.secret) : null;
	const host = fromAddress().split('@')[1]!;
	return {
		messageId: `<${mail.id}@${host}>`,
		date: now(),
		from: { name: 'Harrow', address: fromAddress() },
		to: { name: mail.name ?? '', address: mail.address! },
		...(reply ? { replyTo: { name: 'Harrow', address: reply } } : {}),
		subject: letter.subject,
		text: letterText(letter, answers),
		html: letterHtml(letter, answers),
		headers: {
			'Auto-Submitted': 'auto-generated',
			...(letter.stop
				? { 'List-Unsubscribe': `<${letter.stop}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' }
				: {}),
		},
		disableFileAccess: true,
		disableUrlAccess: true,
	};
}

async function drop(id: string, trouble: string, refused = false): Promise<void> {
	await rows('update mail set dropped_at = $2, trouble = $3, refused = $4, words = null where id = $1', [
		id,
		now(),
		trouble.slice(0, 500),
		refused,
	]);
}

/** Puts a letter off. */
async function waits(id: string, seconds: number): Promise<void> {
	await rows(
		`with put as (update mail set claimed_at = null, tries = tries - 1 where id = $1 returning id)
		select ${queueLetter('$2::integer')} from put`,
		[id, seconds],
	);
}

/** Has letters sent that nobody is at any more, as whoever was ended in the middle of it. */
export async function resumeLetters(): Promise<void> {
	await rows(
		`select ${queueLetter('0')}
		from mail m
		where sent_at is null and dropped_at is null
			and (claimed_at is null or claimed_at < clock_timestamp() - interval '${CLAIM_SECONDS} seconds')
			and not exists (select from graphile_worker.jobs j where j.key = 'mail-' || m.id and j.locked_at is null)`,
	);
}
