import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

export interface TokenView {
	id: string;
	name: string;
	scope: 'read' | 'write';
	created: Date;
}

/** A person's own tokens that still work, newest first. */
export function tokensOf(person: Person): Promise<TokenView[]> {
	return rows<TokenView>(
		`select id, name, scope, created_at as created
		from access_token
		where person_id = $1 and revoked_at is null
		order by created_at desc`,
		[person.id],
	);
}
