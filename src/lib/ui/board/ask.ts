import type { CardView } from '$core/pages/board';

/** What a person is asked for in a dialog before something is done. */
export type Ask =
	| { kind: 'block' | 'size' | 'split' | 'time'; card: CardView }
	| {
			kind: 'owners' | 'labels' | 'position' | 'archive' | 'place' | 'copy' | 'send' | 'field';
			cards: readonly CardView[];
	  }
	| { kind: 'column'; column: string }
	/** Many lines that were pasted, and the card they go below. */
	| { kind: 'paste'; text: string; below: string | null | undefined }
	| { kind: 'import' };
