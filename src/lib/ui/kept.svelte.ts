/** Whether what is shown was kept on this device, since there is no connection; and since when it is so. */
class Kept {
	/** The moment from which the page is; null for now. */
	since = $state<number | null>(null);

	/**
	 * Begins to watch whether the connection comes back.
	 * @param onback called when it has: what is shown is read again
	 */
	begin(onback: () => void): () => void {
		const said = Number(document.documentElement.dataset.kept);
		this.since = said || null;
		let timer: ReturnType<typeof setTimeout> | undefined;
		const look = async () => {
			clearTimeout(timer);
			if (this.since === null) return;
			const there = await fetch('/health', { cache: 'no-store' }).then(
				({ ok }) => ok,
				() => false,
			);
			if (there && this.since !== null) {
				this.since = null;
				delete document.documentElement.dataset.kept;
				onback();
			} else timer = setTimeout(() => void look(), AGAIN_MS);
		};
		void look();
		const online = () => void look();
		window.addEventListener('online', online);
		return () => {
			clearTimeout(timer);
			window.removeEventListener('online', online);
		};
	}
}
const AGAIN_MS = 3000;

export const kept = new Kept();

/** Asks for a page to be kept, so that it can be read without a connection. */
export const keepPage = (path: string): void =>
	navigator.serviceWorker?.controller?.postMessage({ keep: path });

/** Whoever signs out leaves no page behind. */
export const forgetPages = (): void => navigator.serviceWorker?.controller?.postMessage({ forget: true });
