import { randomUUID } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';

/** A small mail server for one machine: it keeps what it takes as files, and brings Harrow what is sent to Harrow. */
export interface MailServer {
	port: number;
	stop(): Promise<void>;
}

const MOST_BYTES = 10_000_000;

/**
 * Starts a mail server on loopback.
 * @param folder where letters are kept, one file each, named by when they came
 * @param inbox letters to addresses of this host go to Harrow at this address, with this key
 */
export async function startMailServer(given: {
	port: number;
	folder: string;
	inbox?: { host: string; url: string; key: string };
}): Promise<MailServer> {
	const { folder, inbox } = given;
	await mkdir(folder, { recursive: true });
	let taken = 0;
	const server = new SMTPServer({
		authOptional: true,
		disabledCommands: ['STARTTLS', 'AUTH'],
		size: MOST_BYTES,
		logger: false,
		onData(stream, session, done) {
			const parts: Buffer[] = [];
			stream.on('data', (part: Buffer) => void (stream.sizeExceeded || parts.push(part)));
			stream.once('error', (error: Error) => done(error));
			stream.once('end', () => {
				const fail = (code: number, words: string) =>
					done(Object.assign(new Error(words), { responseCode: code }));
				if (stream.sizeExceeded) return fail(552, 'A letter may have at most 10 MB.');
				const letter = Buffer.concat(parts);
				const to = session.envelope.rcptTo.map(({ address }) => address);
				const forHarrow = inbox
					? to.filter((address) => address.toLowerCase().endsWith(`@${inbox.host}`))
					: [];
				void (forHarrow.length ? bring(letter, forHarrow) : keep(letter)).then(
					(refusal) => (refusal ? fail(refusal.code, refusal.words) : done()),
					(error: Error) => fail(451, `Not now: ${error.message}`),
				);
			});
		},
	});

	async function keep(letter: Buffer): Promise<null> {
		// Whoever lists the folder never sees half a letter.
		const name = `${String(Date.now()).padStart(15, '0')}-${String(taken++).padStart(6, '0')}-${randomUUID().slice(0, 8)}`;
		await writeFile(join(folder, `${name}.part`), letter);
		await rename(join(folder, `${name}.part`), join(folder, `${name}.eml`));
		return null;
	}

	async function bring(letter: Buffer, to: string[]): Promise<{ code: number; words: string } | null> {
		for (const recipient of to) {
			const answer = await fetch(`${inbox!.url}?to=${encodeURIComponent(recipient)}`, {
				method: 'POST',
				headers: { 'content-type': 'message/rfc822', 'x-harrow-mail-key': inbox!.key },
				body: new Uint8Array(letter),
			});
			if (answer.ok) continue;
			const { title } = (await answer.json().catch(() => ({}))) as { title?: string };
			const later = answer.status === 429 || answer.status >= 500;
			return { code: later ? 451 : 550, words: title ?? 'Harrow did not take it.' };
		}
		return null;
	}

	server.on('error', () => undefined);
	await new Promise<void>((resolve, reject) => {
		server.server.once('error', reject);
		server.listen(given.port, '127.0.0.1', () => resolve());
	});
	return {
		port: (server.server.address() as AddressInfo).port,
		stop: () => new Promise((resolve) => server.close(() => resolve())),
	};
}
