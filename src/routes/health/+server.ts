import { rows } from '$lib/server/database';

/** Whether this process can answer: 200 with the database reached, 503 without. */
export const GET = async () => {
	try {
		await rows('select 1');
		return Response.json({ status: 'ok' });
	} catch {
		return Response.json({ status: 'database not reached' }, { status: 503 });
	}
};
