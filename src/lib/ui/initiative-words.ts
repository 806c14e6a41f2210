import type { PersonView } from '$core/pages/board';
import type { InitiativeSettings } from '$core/pages/settings';
import { amount, dateWords } from './words';

/** What is set of an initiative, in words; empty for nothing. */
export function initiativeWords(
	{ hours, money, target, lead }: InitiativeSettings,
	people: readonly Pick<PersonView, 'id' | 'name'>[],
	today: string,
): string {
	return [
		...(target ? [`to be done by ${dateWords(target, today)}`] : []),
		...(lead ? [`led by ${people.find(({ id }) => id === lead)?.name ?? 'somebody who has left'}`] : []),
		...(hours !== null ? [`has ${amount(hours, 'hours')}`] : []),
		...(money !== null ? [`may cost ${money.toLocaleString('en-GB')}`] : []),
	].join(', ');
}

/** Where an initiative of a board is looked at. */
export const initiativeAddress = (board: string, name: string): string =>
	`/boards/${board}/initiatives/${encodeURIComponent(name)}`;
