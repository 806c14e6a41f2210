/** A picture of one point; of other six bytes, which are its colours, it is another file. */
export const pictureOf = (colours: Uint8Array): Buffer =>
	Buffer.concat([
		Buffer.from('47494638396101000100800000', 'hex'),
		colours.subarray(0, 6),
		Buffer.from('2c00000000010001000002024401003b', 'hex'),
	]);
