import { rows } from '$lib/server/database';

/** The migrations that this build goes by. */
const MIGRATIONS = Object.keys(import.meta.glob('../../../db/migrations/*.sql')).length;

/** Whether this process can answer: 200 with the database reached and up to date, 503 without. */
export const GET = async () => {
	try {
		const [found] = await rows<{ n: number }>('select count(*) as n from migration');
		if (found!.n >= MIGRATIONS) return Response.json({ status: 'ok' });
		return Response.json({ status: 'database not up to date' }, { status: 503 });
	} catch {
		return Response.json({ status: 'database not reached' }, { status: 503 });
	}
};
