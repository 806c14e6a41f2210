/** A change of what a board or its team is set to, as Set-up tells it. */
export interface SettingChange {
	seq: number;
	at: string;
	kind:
		| 'people'
		| 'column-changed'
		| 'cadence-changed'
		| 'settling-changed'
		| 'budget-changed'
		| 'type-changed'
		| 'name-changed'
		| 'sprint-goal'
		| 'sprint-hours'
		| 'sprint-moved'
		| 'setting-undone';
	value: string;
	before: Record<string, unknown> | null;
	after: Record<string, unknown> | null;
	who: string | null;
	undone: boolean;
	/** The command with which whoever looks can take it back. */
	takeBack: string | null;
	/** For leads: what an hour cost before, and costs now. */
	rate: { before: number | null; after: number | null } | null;
}

export interface SetUpPage {
	/** Names that are offered no more. */
	retired: Record<'type' | 'label' | 'initiative', string[]>;
	/** The newest first. */
	changes: SettingChange[];
}

const shown = (value: unknown): string => {
	if (value === null || value === undefined || value === '') return 'none';
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	return Array.isArray(value) ? value.join(', ') || 'none' : String(value);
};
/** `limit from 4 to 5`, of what has changed only. */
function differences(
	before: Record<string, unknown> | null,
	after: Record<string, unknown> | null,
	words: Record<string, string>,
): string {
	const changed = Object.keys(words).filter(
		(key) => shown(before?.[key]) !== shown(after?.[key]) && after?.[key] !== undefined,
	);
	return changed
		.map((key) => `${words[key]} from ${shown(before?.[key])} to ${shown(after?.[key])}`)
		.join('; ');
}

/** What was changed, in a sentence that names what it was before. */
export function settingSentence(change: SettingChange): string {
	const { kind, value, before, after, rate } = change;
	const of = (words: Record<string, string>) => differences(before, after, words) || 'nothing';
	switch (kind) {
		case 'people': {
			const was = rate
				? `It was ${shown(rate.before)}, it is ${shown(rate.after)}.`
				: before && Object.keys(before).length
					? `Before: ${Object.values(before).map(shown).join(', ')}.`
					: '';
			return `${value}${was ? ` ${was}` : ''}`;
		}
		case 'column-changed':
			return `${value}: ${of({ limit: 'limit', mode: 'over the limit', policy: 'policy' })}.`;
		case 'cadence-changed':
			return `Cadence: ${of({ days: 'days', weekday: 'weekday', name: 'name' })}.`;
		case 'settling-changed':
			return `Settling: ${of({ membersSettle: 'members settle', doneDays: 'days that done cards stay' })}.`;
		case 'budget-changed':
			return `Budget of ${value}: ${of({ hours: 'hours' })}.`;
		case 'type-changed':
			return `Type ${value}: ${of({ checklist: 'checklist' })}.`;
		case 'name-changed': {
			const what = String(after?.kind ?? 'name');
			if (after?.retired !== undefined)
				return after.retired ? `The ${what} ${value} is retired.` : `The ${what} ${value} is offered again.`;
			return after?.merged
				? `The ${what} ${shown(before?.name)} became one with ${value}.`
				: `The ${what} ${shown(before?.name)} is called ${value}.`;
		}
		case 'sprint-goal':
			return `Goal of sprint ${value}: ${of({ goal: 'goal' })}.`;
		case 'sprint-hours':
			return `Sprint ${value}: ${of({ focus: 'focus', keepBack: 'keep-back' })}.`;
		case 'sprint-moved':
			return `Sprint ${value}: ${of({ starts: 'start', ends: 'end' })}.`;
		case 'setting-undone':
			return 'A change was taken back.';
	}
}
