import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';

/** Brings a database up to the newest migration. Several at once wait for each other under an advisory lock. */
export async function migrate(
	databaseUrl: string,
	dir = fileURLToPath(new URL('../../../db/migrations', import.meta.url)),
): Promise<string[]> {
	for (let tries = 1; ; tries++)
		try {
			const done = await runner({
				databaseUrl,
				dir,
				direction: 'up',
				migrationsTable: 'migration',
				checkOrder: true,
				log: () => undefined,
			});
			return done.map((migration) => migration.name);
		} catch (error) {
			if (tries === 60 || !/already running/i.test((error as Error).message)) throw error;
			await new Promise((resolve) => setTimeout(resolve, 500));
		}
}
