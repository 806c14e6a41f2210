import type { Happened } from '../events/event.ts';
import type { BoardEventName } from '../events/kinds.ts';

/** A change of what a board or its team is set to, as Set-up tells it. */
export interface SettingChange extends Happened {
	seq: number;
	at: string;
	kind: BoardEventName;
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
