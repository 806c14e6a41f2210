import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Reads what a page shows again. A reading that begins while someone is on the way to another page would cancel their
 * way there, so it waits until they have arrived.
 */
export async function reread(what: string): Promise<void> {
	while (navigating.complete) await navigating.complete.catch(() => undefined);
	await invalidate(what);
}
