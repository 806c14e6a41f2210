import type { Transport } from '@sveltejs/kit';
import { Columnwise, fromColumns, toColumns, type Columns } from '$lib/columnwise';

/** How what is more than plain data travels from the server to a page. */
export const transport: Transport = {
	Columnwise: {
		encode: (value: unknown) => value instanceof Columnwise && toColumns(value),
		decode: (columns: Columns) => fromColumns(columns),
	},
};
