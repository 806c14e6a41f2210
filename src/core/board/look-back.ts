import type { ClosedSprint } from '../capacity/promise.ts';
import type { CarryOver } from '../sprint/carry-over.ts';
import type { Velocity } from '../sprint/velocity.ts';

/** What the place Look back shows of all closed sprints of a board. Cards are named by their keys. */
export interface LookBackPage {
	/** In the order of their closing, with what each could promise when it started. */
	closed: (ClosedSprint & { promise: number | null })[];
	velocity: Velocity;
	carryOver: CarryOver;
	/** The cards that each sprint finished, by its number. */
	done: Record<number, string[]>;
	/** The sprint that runs now. */
	running: number | null;
	titles: Record<string, string>;
}
