import { Logger, runMigrations } from 'graphile-worker';
import { runner } from 'node-pg-migrate';

const QUIET = new Logger(() => () => undefined);

/** Brings a database up to the newest migration of the checkout that it is called in. Several at once wait for each other under an advisory lock. */
export async function migrate(databaseUrl: string, dir = 'db/migrations'): Promise<string[]> {
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
			// Commands leave work to be done later in tables of its own.
			await runMigrations({ connectionString: databaseUrl, logger: QUIET });
			return done.map((migration) => migration.name);
		} catch (error) {
			if (tries === 60 || !/already running/i.test((error as Error).message)) throw error;
			await new Promise((resolve) => setTimeout(resolve, 500));
		}
}
