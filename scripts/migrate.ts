import { migrate } from '../src/lib/server/migrate.ts';

const done = await migrate(process.env.DATABASE_URL!);
if (done.length) console.log(`  ${done.length} migrations applied`);
