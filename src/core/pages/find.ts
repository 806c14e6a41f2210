/** Something that was found by words. */
export interface Found {
	kind: 'card' | 'board' | 'person' | 'sprint' | 'label' | 'initiative';
	/** Of a card its id and key; of others empty. */
	id: string;
	key: string;
	board: string;
	title: string;
	/** Where a card stands, whose board or team it is, or how a sprint stands. */
	place: string;
	to: string;
}
