import type { Field, Looking } from './field.ts';
import { fieldsOfDates } from './fields-of-dates.ts';
import { fieldsOfFlow } from './fields-of-flow.ts';
import { fieldsOfKind } from './fields-of-kind.ts';
import { fieldsOfMarks } from './fields-of-marks.ts';
import { fieldsOfPeople } from './fields-of-people.ts';
import { fieldsOfPlace } from './fields-of-place.ts';
import { fieldsOfWork } from './fields-of-work.ts';
import { ownField } from './own-field.ts';

/** The fields of a board's cards, built in and its own, as they stand to whoever looks; what it does not use is left out. */
export function fieldsOf(looking: Looking): Field[] {
	return [
		...fieldsOfPlace(looking),
		...fieldsOfPeople(looking),
		...fieldsOfKind(looking),
		...fieldsOfDates(looking),
		...fieldsOfWork(looking),
		...fieldsOfMarks(looking),
		...fieldsOfFlow(looking),
		...looking.board.fields.map((field) => ownField(field, looking.today)),
	].filter((field) => field !== false);
}
