import type { AskPage } from '../ask/ask-page.ts';
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

export interface InitiativeSettings {
	/** Budgets; null for none. */
	hours: number | null;
	money: number | null;
	/** The day by which it is to be done. */
	target: string | null;
	/** Who leads it. */
	lead: string | null;
}

export interface SetUpPage {
	/** What its ask page asks; null where it has none. */
	askPage: AskPage | null;
	visibleTo: 'team' | 'named' | 'signed-in';
	changedBy: 'team' | 'named';
	/** Those who may see it, or change it, where only named people may. */
	named: { person: string; changes: boolean }[];
	/** Fields that are offered no more. */
	retiredFields: { id: string; name: string }[];
	/** Lanes that are offered no more. */
	retiredLanes: { id: string; name: string }[];
	/** What is set of initiatives, by their names. */
	initiatives: Record<string, InitiativeSettings>;
	/** How often a card has stood in each column, and how many stand there now. */
	stays: Record<string, number>;
	standing: Record<string, number>;
	/** How many unfinished cards stand in each lane now. */
	inLanes: Record<string, number>;
	/** How many cards carry each name. */
	carried: Record<'type' | 'label' | 'initiative', Record<string, number>>;
	/** Names that are offered no more. */
	retired: Record<'type' | 'label' | 'initiative', string[]>;
	/** The newest first. */
	changes: SettingChange[];
}

/** What moving the clock would do to the figures of the last thirteen weeks. */
export interface ClockMoved {
	/** Cards that were finished in them. */
	finished: number;
	/** The middle of their cycle times in days, as it is and as it would be; null where there are none. */
	now: number | null;
	then: number | null;
}
