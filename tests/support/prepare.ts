import pg from 'pg';
import { migrate } from '../../src/lib/server/migrate.ts';
import { closeDatabase } from '../../src/lib/server/database.ts';
import { makeDemo } from '../../demo/whole.ts';
import { templateUrl, TEMPLATES } from './database.ts';

/** Makes the databases that every test file copies: one with the tables only, one with the demo. */
const server = new pg.Client({ connectionString: process.env.DATABASE_URL });
await server.connect();
const { rows } = await server.query<{ datname: string }>(
	`select datname from pg_database where datname like 'harrow_%'`,
);
for (const { datname } of rows) await server.query(`drop database "${datname}" with (force)`);
for (const name of Object.values(TEMPLATES)) await server.query(`create database ${name}`);
await server.end();

for (const name of Object.values(TEMPLATES)) await migrate(templateUrl(name));
process.env.DATABASE_URL = templateUrl(TEMPLATES.demo);
await makeDemo();
await closeDatabase();
