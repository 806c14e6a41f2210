/** A refusal, as the server words it. */
export interface Refusal {
	status: number;
	code: string;
	title: string;
	field?: string;
	[more: string]: unknown;
}

export interface Answer {
	id: string;
	seq: number | null;
	undoable: boolean;
	result: Record<string, unknown>;
	advice?: string;
	secret?: string;
}

export type Sent = { ok: true; answer: Answer } | { ok: false; refusal: Refusal };

const TRIES_MS = [400, 1000, 2000, 4000, 8000, 15000, 30000];

/**
 * Sends a command. While the connection is lost the same command is sent again under the same id, so that it happens
 * once; after a minute it is given up.
 * @param onwaiting told when the connection is found to be lost
 */
export async function send(command: string, input: object, onwaiting?: () => void): Promise<Sent> {
	const id = crypto.randomUUID();
	const body = JSON.stringify({ id, command, input });
	for (const wait of [...TRIES_MS, null]) {
		try {
			const response = await fetch('/api/commands', {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body,
			});
			const answer = await response.json();
			if (response.ok) return { ok: true, answer };
			if (![502, 503, 504].includes(response.status)) return { ok: false, refusal: answer };
		} catch {
			onwaiting?.();
		}
		if (wait !== null) await new Promise((resolve) => setTimeout(resolve, wait));
	}
	const title =
		'Harrow could not be reached for a minute, so this was not done. Try again when the connection is back.';
	return { ok: false, refusal: { status: 0, code: 'connection.lost', title } };
}

/** Asks the server for something; what it refuses, and that it could not be reached, is said in words. */
export async function ask<T>(
	path: string,
): Promise<{ ok: true; answer: T } | { ok: false; refusal: Refusal }> {
	try {
		const response = await fetch(path);
		const answer = await response.json();
		return response.ok ? { ok: true, answer } : { ok: false, refusal: answer };
	} catch {
		const title = 'Not connected: this cannot be read now. Try again when the connection is back.';
		return { ok: false, refusal: { status: 0, code: 'connection.lost', title } };
	}
}
