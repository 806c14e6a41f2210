import type { Command } from '../commands.ts';
import type { Answer, Refusal, Sent } from './send';

/** A command that is kept in this browser until it is answered. */
interface Kept {
	id: string;
	command: Command;
	input: object;
	person: string;
	at: number;
}

interface Waiting extends Kept {
	answer: (sent: Sent) => void;
	onwaiting?: () => void;
}

const KEY = 'harrow.outbox';
const PAUSES_MS = [400, 1000, 2000, 4000, 8000, 15_000];
/** Answers that are secrets are asked for while somebody looks, and never after. */
const NEVER_KEPT: Command[] = ['MakeToken'];

/**
 * What a person does is sent one after the other, so that nothing overtakes itself on the way, and kept in the browser
 * until the server has answered: across a lost connection, and across a reload. Under the same id it happens once, however
 * often it is sent.
 */
class Outbox {
	/** How many commands the connection keeps waiting. */
	waiting = $state(0);
	/** Cards that something waiting is about. */
	about = $state.raw<ReadonlySet<string>>(new Set());
	/** What has to be said though nobody waits for it: what was refused of what an earlier page had left. */
	told = $state.raw<string[]>([]);
	private person = '';
	private line: Waiting[] = [];
	private sending = false;
	private wake = () => {};
	private resumed = () => {};

	/**
	 * Begins for the person who is signed in: what an earlier page of theirs left is sent first.
	 * @param onresumed called when some of that has happened now
	 */
	begin(person: string, onresumed: () => void): () => void {
		this.person = person;
		this.resumed = onresumed;
		const left = read().filter(
			(kept) => kept.person === person && !this.line.some((one) => one.id === kept.id),
		);
		for (const kept of left) this.line.push({ ...kept, answer: (sent) => this.hear(kept, sent) });
		if (left.length) void this.go();
		const online = () => this.wake();
		// Leaving is asked about only where something would have to wait for the next visit.
		const leaving = (event: BeforeUnloadEvent) => this.waiting && event.preventDefault();
		window.addEventListener('online', online);
		window.addEventListener('beforeunload', leaving);
		return () => {
			window.removeEventListener('online', online);
			window.removeEventListener('beforeunload', leaving);
		};
	}

	/** Sends a command once all before it are answered; gives its answer, however long that takes. */
	send(command: Command, input: object, onwaiting?: () => void): Promise<Sent> {
		return new Promise((answer) => {
			const one: Waiting = {
				...{ id: crypto.randomUUID(), command, input, person: this.person, at: Date.now() },
				...{ answer, onwaiting },
			};
			this.line.push(one);
			if (!NEVER_KEPT.includes(command)) write([...read(), kept(one)]);
			void this.go();
		});
	}

	private async go(): Promise<void> {
		if (this.sending) return;
		this.sending = true;
		for (let one = this.line[0]; one; one = this.line[0]) {
			const sent = await this.untilAnswered(one);
			this.line.shift();
			const { id } = one;
			write(read().filter((known) => known.id !== id));
			this.waiting = 0;
			this.about = new Set();
			one.answer(sent);
		}
		this.sending = false;
	}

	private async untilAnswered(one: Waiting): Promise<Sent> {
		const body = JSON.stringify({ id: one.id, command: one.command, input: one.input });
		for (let tries = 0; ; tries++) {
			try {
				const response = await fetch('/api/commands', {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body,
				});
				const answer: unknown = await response.json();
				if (response.ok) return { ok: true, answer: answer as Answer };
				if (![502, 503, 504].includes(response.status)) return { ok: false, refusal: answer as Refusal };
			} catch {
				// No answer came: the command may have happened or not. Under its id it is asked again.
			}
			this.waiting = this.line.length;
			this.about = new Set(this.line.flatMap(({ input }) => (input as { card?: string }).card ?? []));
			for (const each of this.line) each.onwaiting?.();
			await new Promise<void>((resolve) => {
				const clock = setTimeout(resolve, PAUSES_MS[Math.min(tries, PAUSES_MS.length - 1)]);
				this.wake = () => {
					clearTimeout(clock);
					resolve();
				};
			});
		}
	}

	/** The answer to what an earlier page had left: nobody waits for it any more, so what was refused is said. */
	private hear({ command, input }: Kept, sent: Sent): void {
		if (sent.ok) return this.resumed();
		const wanted = written(input);
		this.tell(
			`${words(command)} was refused: ${sent.refusal.title}${wanted ? ` You had written: “${wanted}”` : ''}`,
		);
	}

	tell(sentence: string): void {
		this.told = [...this.told, sentence];
	}
	heard(sentence: string): void {
		this.told = this.told.filter((one) => one !== sentence);
	}
}

const kept = ({ id, command, input, person, at }: Waiting): Kept => ({ id, command, input, person, at });

/** What somebody wrote or chose in a command, in words: none of it is lost with a refusal. */
function written(input: object): string {
	const { title, text, description, due, left, size, note, reason } = input as Record<string, unknown>;
	const said = [title, text, description, due, left, size, note, reason].filter(
		(one) => typeof one === 'string' || typeof one === 'number',
	);
	return said.join(', ');
}

/** `Move card` of `MoveCard` */
const words = (command: string) => command.replace(/(?!^)[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

function read(): Kept[] {
	try {
		return JSON.parse(localStorage.getItem(KEY) ?? '[]') as Kept[];
	} catch {
		return [];
	}
}

function write(list: Kept[]): void {
	try {
		if (list.length) localStorage.setItem(KEY, JSON.stringify(list));
		else localStorage.removeItem(KEY);
	} catch {
		// Where the browser keeps nothing, what is sent lives as long as the page.
	}
}

export const outbox = new Outbox();
