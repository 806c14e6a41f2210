import type { Command, CommandInput, CommandResult } from '../commands.ts';
import { outbox } from './outbox.svelte';

/** A refusal, as the server words it. */
export interface Refusal {
	status: number;
	code: string;
	title: string;
	field?: string;
	[more: string]: unknown;
}

export interface Answer<R = object> {
	id: string;
	seq: number | null;
	undoable: boolean;
	result: R;
	advice?: string;
	secret?: string;
}

export type Sent<R = object> = { ok: true; answer: Answer<R> } | { ok: false; refusal: Refusal };

/**
 * Sends a command. It is kept in this browser until the server has answered, and sent again under the same id while the
 * connection is lost, so that it happens once.
 * @param onwaiting told when the connection is found to be lost
 */
export function send<C extends Command>(
	command: C,
	input: CommandInput<C>,
	onwaiting?: () => void,
): Promise<Sent<CommandResult<C>>> {
	return outbox.send(command, input, onwaiting) as Promise<Sent<CommandResult<C>>>;
}

/**
 * Asks the server for something; what it refuses, and that it could not be reached, is said in words.
 * @param body what is asked, where that is too long for an address
 */
export async function ask<T>(
	path: string,
	body?: object,
): Promise<{ ok: true; answer: T } | { ok: false; refusal: Refusal }> {
	try {
		const headers = { 'content-type': 'application/json' };
		const response = await fetch(path, body && { method: 'POST', headers, body: JSON.stringify(body) });
		const answer = await response.json();
		return response.ok ? { ok: true, answer } : { ok: false, refusal: answer };
	} catch {
		const title = 'Not connected: this cannot be read now. Try again when the connection is back.';
		return { ok: false, refusal: { status: 0, code: 'connection.lost', title } };
	}
}
