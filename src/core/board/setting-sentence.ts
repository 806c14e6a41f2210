import { BOARD_EVENTS } from '../events/board-events.ts';
import type { BoardEventKind } from '../events/event.ts';
import type { SettingChange } from '../pages/settings.ts';

const said = (rate: number | null) => (rate === null ? 'none' : String(rate));

/** What was changed, in a sentence that names what it was before. */
export function settingSentence(change: SettingChange): string {
	const { kind, value, rate } = change;
	if (rate) return `${value} It was ${said(rate.before)}, it is ${said(rate.after)}.`;
	return (BOARD_EVENTS[kind] as BoardEventKind).says(change);
}
