import { Transform, Type } from 'class-transformer';
import { applyDecorators } from './decorate.ts';
import {
	ArrayMaxSize,
	ArrayMinSize,
	ArrayUnique,
	IsArray,
	IsInt,
	IsNotEmpty,
	IsObject,
	IsString,
	IsUUID,
	Matches,
	Max,
	MaxLength,
	Min,
	ValidateBy,
	ValidateIf,
	ValidateNested,
} from 'class-validator';
import { JSONSchema } from 'class-validator-jsonschema/build/decorators.js';

const trim = Transform(({ value }) => (typeof value === 'string' ? value.trim() : value));

/** Ids are compared as text: they are small letters from here on, however they were sent. */
const small = Transform(({ value }) =>
	typeof value === 'string'
		? value.toLowerCase()
		: Array.isArray(value)
			? value.map((one: unknown) => (typeof one === 'string' ? one.toLowerCase() : one))
			: value,
);

/** The id of a thing. */
export const Id = (what: string) =>
	applyDecorators(small, IsUUID(undefined, { message: `The ${what} must be named by its id.` }));

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

/** A number with at most so many decimals. */
export const Decimals = (places: number, message: string, each = false) =>
	ValidateBy(
		{
			name: 'isNumber',
			validator: {
				validate: (value) =>
					typeof value === 'number' && Number.isFinite(value) && Number(value.toFixed(places)) === value,
			},
		},
		{ each, message },
	);

/** Hours or points. */
export const Amount = (what: string) =>
	applyDecorators(
		Decimals(2, `${what} must be a number with at most two decimals.`),
		Min(0, { message: `${what} must not be below 0.` }),
		Max(9999, { message: `${what} may be at most 9,999.` }),
	);

/** An amount of money, such as a budget. */
export const Money = (what: string) =>
	applyDecorators(
		Decimals(2, `${what} must be a number with at most two decimals.`),
		Min(0, { message: `${what} must not be below 0.` }),
		Max(999_999_999, { message: `${what} may be at most 999,999,999.` }),
	);

/** A field that may be left out; where it may be null too, it says so with `OrNull`. */
export const Optional = () =>
	applyDecorators(
		ValidateIf((_, value) => value !== undefined),
		JSONSchema((schema) => ({ ...schema, 'x-optional': true }) as never) as unknown as PropertyDecorator,
	);

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

/** A day such as 2026-12-04; whether there is such a day the handler checks with `dayField`. */
export const DayText = (what: string) => Line(what, 10);

/** A share of something, from 0 to 1. */
export const Share = (what: string) =>
	applyDecorators(
		Decimals(4, `${what} must be a number from 0 to 1.`),
		Min(0, { message: `${what} must not be below 0.` }),
		Max(1, { message: `${what} must not be above 1.` }),
	);

/** A sprint of the board, by its number. */
export const SprintNumber = () =>
	applyDecorators(
		IsInt({ message: 'The sprint must be named by its number.' }),
		Min(1, { message: 'The sprint must be named by its number.' }),
		Max(1_000_000, { message: 'The sprint must be named by its number.' }),
	);

/** A card by its number on this board, or by its key. */
export const CardNamed = () =>
	applyDecorators(
		ValidateBy({
			name: 'isCard',
			validator: {
				validate: (value) =>
					typeof value === 'number'
						? Number.isInteger(value) && value >= 1 && value <= 100_000_000
						: typeof value === 'string' && /^[A-Za-z][A-Za-z0-9]{1,9}-\d{1,9}$/.test(value),
				defaultMessage: () => 'The other card must be named by its number or by its key, such as BUOY-12.',
			},
		}),
		JSONSchema({ type: ['integer', 'string'] as never }) as unknown as PropertyDecorator,
	);

/** A list of ids of people. */
export const People = (what: string) =>
	applyDecorators(
		small,
		IsUUID(undefined, { each: true, message: `Each ${what} must be named by their id.` }),
		ArrayUnique({ message: `Name each ${what} once.` }),
		ArrayMaxSize(20, { message: `There may be at most 20 ${what}s.` }),
		IsArray({ message: `The ${what}s must be a list of ids.` }),
	);

/** A list of ids. */
export const Ids = (what: string, most: number) =>
	applyDecorators(
		small,
		IsUUID(undefined, { each: true, message: `Each ${what} must be named by its id.` }),
		ArrayUnique({ message: `Name each ${what} once.` }),
		ArrayMaxSize(most, { message: `There may be at most ${most} ${what}s.` }),
		IsArray({ message: `The ${what}s must be a list of ids.` }),
	);

/** A list of keys of cards, such as TIDE-214. */
export const CardKeys = (most: number) =>
	applyDecorators(
		Matches(/^[A-Z][A-Z0-9]{1,9}-\d{1,9}$/, {
			each: true,
			message: 'Each card must be named by its key, such as TIDE-214.',
		}),
		ArrayMaxSize(most, { message: `There may be at most ${most} cards.` }),
		IsArray({ message: 'The cards must be a list of keys.' }),
	);

/** A list of short texts. */
export const Lines = (what: string, most: number, length: number) =>
	applyDecorators(
		IsString({ each: true, message: `Each ${what} must be text.` }),
		IsNotEmpty({ each: true, message: `No ${what} may be empty.` }),
		MaxLength(length, { each: true, message: `Each ${what} may have at most ${length} characters.` }),
		ArrayMaxSize(most, { message: `There may be at most ${most} ${what}s.` }),
		IsArray({ message: `The ${what}s must be a list of texts.` }),
	);

/** A list of entries, each checked as its own class. */
export const Entries = (what: string, of: new () => object, most: number, least = 1) =>
	applyDecorators(
		ValidateNested({
			each: true,
			message: `Each of the ${what} must be an object with the fields it needs.`,
		}),
		IsObject({ each: true, message: `Each of the ${what} must be an object with the fields it needs.` }),
		Type(() => of) as PropertyDecorator,
		ArrayMinSize(least, { message: `Name at least ${least} of the ${what}.` }),
		ArrayMaxSize(most, { message: `There may be at most ${most} ${what} at once.` }),
		IsArray({ message: `The ${what} must be a list.` }),
	);

/** A card as its sender saw it. */
export class SeenCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;
}

/** The cards that a command changes, each named once. */
export const SeenCards = () =>
	applyDecorators(
		ArrayUnique((seen: SeenCard | null) => seen?.card, { message: 'Name each card once.' }),
		Entries('cards', SeenCard, 500),
	);

/** Hours on each weekday, Monday first. */
export const Week = () =>
	applyDecorators(
		Max(24, { each: true, message: 'A day has at most 24 hours.' }),
		Min(0, { each: true, message: 'The hours of a weekday must not be below 0.' }),
		Decimals(2, 'The hours of each weekday must be a number with at most two decimals.', true),
		ArrayMinSize(7, { message: 'A week has seven days, Monday first.' }),
		ArrayMaxSize(7, { message: 'A week has seven days, Monday first.' }),
		IsArray({ message: 'The hours must be a list of seven numbers, Monday first.' }),
	);
