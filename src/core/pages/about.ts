import type { InitiativeSettings } from './settings.ts';

/** What a board says of itself on its own page, beside what every place of it knows. */
export interface AboutPage {
	/** What it is for, in Markdown. */
	purpose: string;
	visibleTo: 'team' | 'named' | 'signed-in';
	changedBy: 'team' | 'named';
	/** What is set of its initiatives, by their names. */
	initiatives: Record<string, InitiativeSettings>;
}
