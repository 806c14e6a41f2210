import type { Command } from '../commands.ts';
import { keepCommand, keptCommands, letGo, type Kept } from './kept-commands';
import type { Answer, Refusal, Sent } from './send';
import type { Told } from './told';
import { count } from './words';

interface Waiting extends Kept {
	answer: (sent: Sent) => void;
	onwaiting?: () => void;
	/** Done once the device has it, or has refused to keep it. */
	keeping?: Promise<boolean>;
}

const PAUSES_MS = [400, 1000, 2000, 4000, 8000, 15_000];
/** No answer after this long: the line may be dead, though nothing says so. It is asked again under the same id, more patiently each time. */
const NO_ANSWER_MS = 30_000;
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
	/** Whether the device keeps all that waits: else it is lost with this page. */
	kept = $state(true);
	/** Cards that something waiting is about. */
	about = $state.raw<ReadonlySet<string>>(new Set());
	/** What was refused of what an earlier page had left, and other things that nobody waits for. */
	told = $state.raw<Told[]>([]);
	/** What is said while there is no connection. */
	readonly says = $derived.by(() => {
		const waits = this.waiting
			? `: ${count(this.waiting, 'change')} ${this.waiting === 1 ? 'waits' : 'wait'}`
			: '';
		const then = `sent when the connection is back${waits}.`;
		return this.kept
			? `Not connected. What you change is kept here and ${then}`
			: `Not connected. This browser keeps nothing, so leave this page open: what you change is ${then}`;
	});
	private person = '';
	private line: Waiting[] = [];
	private sending = false;
	private wake: () => unknown = () => {};
	private resumed = () => {};

	/**
	 * Begins for the person who is signed in: what an earlier page of theirs left is sent first.
	 * @param onresumed called when some of that has happened now
	 */
	begin(person: string, onresumed: () => void): () => void {
		this.person = person;
		this.resumed = onresumed;
		void this.goOn(person);
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

	/** What an earlier page left goes before what this one sends. A device that does not answer is asked again later. */
	private async goOn(person: string, tries = 0): Promise<void> {
		const known = await keptCommands();
		if (!known && tries < PAUSES_MS.length)
			return void setTimeout(() => void this.goOn(person, tries + 1), PAUSES_MS[tries]);
		if (!known || this.person !== person) return;
		const left = known.filter(
			(kept) => kept.person === person && !this.line.some((one) => one.id === kept.id),
		);
		if (!left.length) return;
		// What is on its way already stays in front.
		this.line.splice(
			this.sending ? 1 : 0,
			0,
			...left.map((kept) => ({ ...kept, answer: (sent: Sent) => void this.hear(kept, sent) })),
		);
		void this.go();
	}

	/** Sends a command once all before it are answered; gives its answer, however long that takes. */
	send(command: Command, input: object, onwaiting?: () => void): Promise<Sent> {
		return new Promise((answer) => {
			const one: Waiting = {
				...{ id: crypto.randomUUID(), command, input, person: this.person, at: Date.now() },
				...{ answer, onwaiting },
			};
			this.line.push(one);
			if (!NEVER_KEPT.includes(command)) one.keeping = keepCommand(kept(one));
			void this.go();
		});
	}

	private async go(): Promise<void> {
		if (this.sending) return;
		this.sending = true;
		for (let one = this.line[0]; one; one = this.line[0]) {
			const sent = await this.untilAnswered(one);
			this.line.shift();
			letGo(one.id);
			this.waiting = 0;
			this.about = new Set();
			one.answer(sent);
		}
		this.sending = false;
	}

	private async untilAnswered(one: Waiting): Promise<Sent> {
		const body = JSON.stringify({ id: one.id, command: one.command, input: one.input });
		for (let tries = 0; ; tries++) {
			const asking = new AbortController();
			const deadline = setTimeout(() => asking.abort(), NO_ANSWER_MS * (tries + 1));
			let soon = false;
			// The connection came back while this was on its way: its answer may never come over the old one.
			this.wake = () => {
				soon = true;
				asking.abort();
			};
			try {
				const response = await fetch('/api/commands', {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body,
					signal: asking.signal,
				});
				const answer: unknown = await response.json();
				if (response.ok) return { ok: true, answer: answer as Answer };
				if (![502, 503, 504].includes(response.status)) return { ok: false, refusal: answer as Refusal };
			} catch {
				// No answer came: the command may have happened or not. Under its id it is asked again.
			} finally {
				clearTimeout(deadline);
			}
			// It is said to be kept once it is.
			this.kept = (await Promise.all(this.line.map(({ keeping }) => keeping))).every((one) => one !== false);
			this.waiting = this.line.length;
			this.about = new Set(this.line.flatMap(({ input }) => (input as { card?: string }).card ?? []));
			for (const each of this.line) each.onwaiting?.();
			if (soon) continue;
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
	private async hear(kept: Pick<Kept, 'command' | 'input'>, sent: Sent): Promise<void> {
		if (sent.ok) return this.resumed();
		const { refusal } = sent;
		const { toldOf } = await import('./told');
		const again = (input: object) =>
			void this.send(kept.command, input).then((answer) => this.hear(kept, answer));
		this.told = [...this.told, toldOf(kept, refusal, again)];
	}

	tell(sentence: string): void {
		this.told = [...this.told, { sentence, both: [] }];
	}
	heard(told: Told): void {
		this.told = this.told.filter((one) => one !== told);
	}
}

const kept = ({ id, command, input, person, at }: Waiting): Kept => ({ id, command, input, person, at });

export const outbox = new Outbox();
