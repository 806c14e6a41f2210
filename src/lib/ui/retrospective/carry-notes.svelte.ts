import { dragNotes } from '../board/drag';

/** Notes being dragged onto one another, or into a column by themselves. */
export class CarryNotes {
	/** The note that is dragged, and the one that it is held over; empty where there is none. */
	moving = $state('');
	over = $state('');

	/** @param lay lays a note on another one, or by itself (null) into a column */
	constructor(private readonly lay: (note: string, on: string | null, place?: number) => void) {}

	/** Begins to listen to drags inside an element; the answer stops. */
	attach(within: HTMLElement): () => void {
		let target: { on: string | null; place?: number } | null = null;
		const stop = dragNotes(within, {
			start: (id) => ((this.moving = id), (target = null)),
			move: (x, y) => {
				const under = document.elementFromPoint(x, y);
				const on = under?.closest<HTMLElement>('[data-note]')?.dataset.note;
				const place = under?.closest<HTMLElement>('[data-place]')?.dataset.place;
				this.over = on && on !== this.moving ? on : '';
				target = this.over
					? { on: this.over }
					: place !== undefined && on !== this.moving
						? { on: null, place: Number(place) }
						: null;
			},
			end: () => {
				const [note, to] = [this.moving, target];
				this.moving = this.over = '';
				if (to) this.lay(note, to.on, to.place);
			},
		});
		return () => void stop.then((end) => end());
	}
}
