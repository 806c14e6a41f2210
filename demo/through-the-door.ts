import { rows } from '../src/lib/server/database.ts';
import type { Person } from '../src/lib/server/sign-in.ts';

/** The people of the demo by their names, as those who give commands. */
export async function peopleOfDemo(): Promise<Map<string, Person>> {
	const found = await rows<Omit<Person, 'scope'>>(
		'select id, name, initials, email from person order by created_at desc',
	);
	return new Map(found.map((person) => [person.name, { ...person, scope: 'write' as const }]));
}

/** The id of a board of the demo. */
export async function boardOfDemo(key: string): Promise<string> {
	return (await rows<{ id: string }>('select id from board where key = $1', [key]))[0]!.id;
}
