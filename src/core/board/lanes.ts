import type { CardView, ServiceClass } from '../pages/board.ts';

/** A lane as this goes by it: one that stands for a class holds the cards of that class. */
export interface Lane {
	id: string;
	class: ServiceClass | null;
}

export const CLASSES: readonly ServiceClass[] = ['expedite', 'fixed', 'standard', 'background'];

type Card = Pick<CardView, 'lane' | 'class'>;

const ofClass = <L extends Lane>(lanes: readonly L[], of: ServiceClass) =>
	lanes.find((lane) => lane.class === of);

/** The lane in which a card stands: that of its class, or else the one that it was put in; null for none. */
export function laneOf<L extends Lane>(lanes: readonly L[], card: Card): L | null {
	return (
		ofClass(lanes, card.class) ?? lanes.find((lane) => lane.class === null && lane.id === card.lane) ?? null
	);
}

/** Whether a card can stand in a lane that stands for no class, or in none: some class has no lane. */
export const roomForOthers = (lanes: readonly Lane[]): boolean => CLASSES.some((one) => !ofClass(lanes, one));

/** The class that a card gets when it leaves the lane of its own: standard, or the first that has no lane. */
const ordinary = (lanes: readonly Lane[]): ServiceClass | undefined =>
	(['standard', 'background', 'fixed', 'expedite'] as const).find((one) => !ofClass(lanes, one));

/** What changes of a card when it is put into a lane; null: into none. */
export function intoLane(lanes: readonly Lane[], card: Card, lane: Lane | null): Card {
	if (lane?.class) return { lane: card.lane, class: lane.class };
	const left = ofClass(lanes, card.class) ? ordinary(lanes) : undefined;
	return { lane: lane?.id ?? null, class: left ?? card.class };
}
