/** What is about to be seen is drawn at once; what is further off, once there is time for it. */
const AT_ONCE = '100px';
const LATER = '700px';
const LATER_MS = 120;

const waiting = new WeakMap<Element, () => void>();
let observers: IntersectionObserver[] | undefined;

const observe = (around: string, come: (elements: Element[]) => void) =>
	new IntersectionObserver(
		(entries) => come(entries.filter(({ isIntersecting }) => isIntersecting).map(({ target }) => target)),
		// What scrolls inside the page is looked ahead in as the page itself is.
		{ rootMargin: around, scrollMargin: around } as IntersectionObserverInit,
	);

function arrived(elements: Element[]): void {
	for (const element of elements) {
		const come = waiting.get(element);
		leave(element);
		come?.();
	}
}
function leave(element: Element): void {
	waiting.delete(element);
	for (const observer of observers!) observer.unobserve(element);
}

/** Calls once, when an element comes near the part of the page that is seen; the answer stops waiting. */
export function whenNear(element: Element, come: () => void): () => void {
	observers ??= [
		observe(AT_ONCE, arrived),
		observe(LATER, (elements) => elements.length && setTimeout(() => arrived(elements), LATER_MS)),
	];
	waiting.set(element, come);
	for (const observer of observers) observer.observe(element);
	return () => leave(element);
}
