/** Where keys are somebody else's: in what is typed, in lists of choices, in dialogs, and beside the place. */
const ELSEWHERE =
	'input:not([type="checkbox"]), textarea, select, [contenteditable], dialog, [role="dialog"], [role="menu"], [role="listbox"], aside.panel';

/**
 * Whether a key is meant for the place that is open: it is, wherever the focus is on the page, as soon as the place is there
 * and after a drag with the mouse, unless somebody is typing, choosing, or answering a dialog.
 */
export function forPlace(event: KeyboardEvent): boolean {
	if (event.defaultPrevented) return false;
	if (document.querySelector('dialog[open]')) return false;
	return !(event.target instanceof Element && event.target.closest(ELSEWHERE));
}
