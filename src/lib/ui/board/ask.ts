import type { CardView } from '$core/board/view';
import type { Sent } from '../send';

/** What a person is asked for in a dialog before something is done. */
export type Ask =
	| { kind: 'block' | 'owners' | 'size'; card: CardView }
	| { kind: 'through'; sentence: string; again: (reason: string) => Promise<Sent> }
	| { kind: 'column'; column: string };
