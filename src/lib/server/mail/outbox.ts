import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import nodemailer from 'nodemailer';
import { ANSWER_ABOVE } from '../../../core/mail/letter.ts';

/** A letter that the stand-in for a mail server took. */
export interface Sent {
	id: string;
	at: string;
	from: string;
	to: { name: string; address: string };
	subject: string;
	text: string;
	/** Where answers go to; null where it takes none. */
	reply: string | null;
}

const SHOWN = 100;

/** The latest letters of the stand-in's outbox, the latest first. */
export async function outbox(folder: string): Promise<Sent[]> {
	const { simpleParser } = await import('mailparser');
	const files = (await readdir(folder).catch(() => []))
		.filter((name) => name.endsWith('.eml'))
		.sort()
		.reverse();
	const read = await Promise.all(
		files.slice(0, SHOWN).map(async (name) => {
			const letter = await simpleParser(await readFile(join(folder, name)), { skipTextToHtml: true }).catch(
				() => null,
			);
			if (!letter) return null;
			const to = [letter.to ?? []].flat()[0]?.value[0];
			const reply = letter.replyTo?.value[0]?.address ?? null;
			return {
				id: name.slice(0, -'.eml'.length),
				at: (letter.date ?? new Date(0)).toISOString(),
				from: letter.from?.text ?? '',
				to: { name: to?.name ?? '', address: to?.address ?? '' },
				subject: letter.subject ?? '',
				text: (letter.text ?? '').replace(ANSWER_ABOVE, '').trim(),
				reply,
			};
		}),
	);
	return read.filter((one) => one !== null);
}

/**
 * Answers a letter as whom it went to, as their mail program would: by mail.
 * @returns what was wrong with it, in words; null where it was sent
 */
export async function answerLetter(folder: string, id: string, text: string): Promise<string | null> {
	const letter = (await outbox(folder)).find((one) => one.id === id);
	if (!letter?.reply) return 'This letter takes no answer.';
	if (!text.trim()) return 'Say something.';
	const server = nodemailer.createTransport({
		url: process.env.HARROW_SMTP,
		socketTimeout: 12_000,
	} as object);
	const quoted = letter.text.replace(/^/gm, '> ');
	try {
		await server.sendMail({
			from: letter.to,
			to: letter.reply,
			subject: `Re: ${letter.subject}`,
			text: `${text.trim()}\n\nHarrow wrote:\n${quoted}`,
			disableFileAccess: true,
			disableUrlAccess: true,
		});
		return null;
	} catch (error) {
		return (error as Error).message;
	} finally {
		server.close();
	}
}
