import { getContext, setContext } from 'svelte';
import type { Sent } from '../send';

/**
 * What is asked in a dialog and not answered yet. A dialog stays open until its answer is there, and for as long as it is
 * refused, so that nothing has to be typed again.
 */
export class Asked {
	/** Why it was refused; empty while it was not. */
	problem = $state('');
	sending = $state(false);

	/** Sends what a dialog asks for; says whether it was kept. */
	async kept(work: Promise<Sent | void>): Promise<boolean> {
		this.sending = true;
		this.problem = '';
		const sent = await work;
		this.sending = false;
		if (!sent || sent.ok) return true;
		this.problem = sent.refusal.title;
		return false;
	}

	/** A new dialog begins with nothing refused. */
	begin(): void {
		this.problem = '';
	}
}

const KEY = Symbol('asked');

/** For whoever opens dialogs. */
export const provideAsked = (): Asked => setContext(KEY, new Asked());

/** For dialogs: what is being sent, where whoever opened it tells. */
export const asked = (): Asked | undefined => getContext<Asked | undefined>(KEY);
