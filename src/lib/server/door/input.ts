import { plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { Problem } from '../problem.ts';
import type { AnyCommand } from './command.ts';

/**
 * What a command is sent with, as its handler gets it.
 * @throws Problem 422 naming the field that is not right
 */
export async function readInput(
	command: AnyCommand,
	given: Record<string, unknown>,
): Promise<Record<string, unknown>> {
	refuseUnstorable(given);
	const input = plainToInstance(command.input, given) as Record<string, unknown>;
	const errors = await validate(input, {
		whitelist: true,
		forbidNonWhitelisted: true,
		stopAtFirstError: true,
	});
	if (errors[0]) throw invalid(errors[0]);
	return input;
}

/** The first thing that is wrong, found in the lists of an input too. */
function invalid(outer: ValidationError): Problem {
	let error = outer;
	while (!error.constraints && error.children?.[0]) {
		const inner = error.children[0];
		// What is wrong in an entry of a list is named by the entry's own field.
		error = /^\d+$/.test(inner.property) && inner.children?.[0] ? inner.children[0] : inner;
	}
	const [rule, sentence] = Object.entries(error.constraints ?? {})[0] ?? [];
	const field = error.property.slice(0, 40);
	if (rule === 'whitelistValidation')
		return new Problem(422, 'field.unknown', `This command has no field "${field}".`, field);
	return new Problem(422, `invalid.${field}`, sentence ?? `The field ${field} is not right.`, field);
}

/** Characters that the database cannot keep are refused at the door, wherever they stand. */
function refuseUnstorable(value: unknown, field = 'input', depth = 0): void {
	if (depth > 8) throw new Problem(422, 'invalid.input', 'The input is nested too deeply.', field);
	if (typeof value === 'string' && /\0|\p{Surrogate}/u.test(value))
		throw new Problem(
			422,
			`invalid.${field}`,
			`The field ${field} holds a character that is no text.`,
			field,
		);
	if (typeof value === 'object' && value !== null)
		for (const [key, inner] of Object.entries(value)) {
			refuseUnstorable(key, field, depth);
			// Names that every object has are no fields.
			if (key in Object.prototype)
				throw new Problem(422, 'field.unknown', `This command has no field "${key}".`, key);
			refuseUnstorable(inner, Array.isArray(value) ? field : key.slice(0, 40), depth + 1);
		}
}

/** Whether something is an object with fields. */
export function isRecord(value: unknown): value is Record<string, unknown> {
	return typeof value === 'object' && value !== null && !Array.isArray(value);
}
