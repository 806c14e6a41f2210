import { Transform } from 'class-transformer';
import { applyDecorators } from './decorate.ts';
import {
	IsInt,
	IsNotEmpty,
	IsNumber,
	IsOptional,
	IsString,
	IsUUID,
	Max,
	MaxLength,
	Min,
	ValidateIf,
} from 'class-validator';
import { JSONSchema } from 'class-validator-jsonschema';

const trim = Transform(({ value }) => (typeof value === 'string' ? value.trim() : value));

/** The id of a thing. */
export const Id = (what: string) =>
	applyDecorators(IsUUID(undefined, { message: `The ${what} must be named by its id.` }));

/** The version of a card or column that the sender saw. */
export const Version = () =>
	applyDecorators(
		IsInt({ message: 'The version must be the whole number you last saw.' }),
		Min(1, { message: 'The version must be 1 or more.' }),
		Max(2_147_483_647, { message: 'The version is too large.' }),
	);

/** Text in one line that must not be empty. */
export const Line = (what: string, most: number) =>
	applyDecorators(
		trim,
		IsString({ message: `${what} must be text.` }),
		IsNotEmpty({ message: `${what} must not be empty.` }),
		MaxLength(most, { message: `${what} may have at most ${most} characters.` }),
	);

/** Hours or points. */
export const Amount = (what: string) =>
	applyDecorators(
		IsNumber(
			{ allowNaN: false, allowInfinity: false, maxDecimalPlaces: 2 },
			{ message: `${what} must be a number with at most two decimals.` },
		),
		Min(0, { message: `${what} must not be below 0.` }),
		Max(9999, { message: `${what} may be at most 9,999.` }),
	);

/** A field that may be left out. */
export const Optional = IsOptional;

/** A field that must be there, and may be null. */
export const OrNull = () =>
	applyDecorators(
		ValidateIf((_, value) => value !== null),
		JSONSchema((schema) => ({
			...schema,
			type: [schema.type ?? 'string', 'null'] as never,
			'x-required': true,
		})) as unknown as PropertyDecorator,
	);
