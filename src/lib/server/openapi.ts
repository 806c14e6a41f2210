import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import type { Read, Results } from '../api.ts';
import answers from './api-answers.json' with { type: 'json' };
import { COMMANDS } from './commands/index.ts';
import { PLACES, READS, type ReadDescription } from './reads.ts';

const problem = {
	description: 'Refused; nothing was changed',
	content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};
const json = (description: string, schema: object = { type: 'object' }) => ({
	description,
	content: { 'application/json': { schema } },
});
const parameter = (name: string, place: 'path' | 'query', description: string) => ({
	name,
	in: place,
	required: place === 'path',
	description,
	schema: { type: 'string' },
});
/** What is between the braces of a path. */
const placesIn = (path: string) =>
	[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => parameter(name!, 'path', PLACES[name!]!));

function read(path: Read, { id, summary, query = {}, body }: ReadDescription): object {
	const call = {
		operationId: id,
		summary,
		parameters: [
			...placesIn(path),
			...Object.entries(query).map(([name, meaning]) => parameter(name, 'query', meaning)),
		],
		...(body && { requestBody: { required: true, content: { 'application/json': { schema: body } } } }),
		responses: { '200': json('Found', { $ref: `#/components/schemas/${answerOf(id)}` }), '4XX': problem },
	};
	return { [body ? 'post' : 'get']: call };
}
/** The name of the schema of what a read answers: `BoardAnswer`. */
const answerOf = (id: string) => `${id[0]!.toUpperCase()}${id.slice(1)}Answer`;

/** The published description of the API (OpenAPI 3.1), made from the command classes themselves. */
export function openApi(version: string): object {
	const inputs = validationMetadatasToSchemas({ refPointerPrefix: '#/components/schemas/' });
	const schemas: Record<string, object> = {};
	const calls: string[] = [];
	for (const [name, command] of COMMANDS) {
		schemas[`${name}Input`] = named({
			...(inputs[command.input.name] as { properties?: Record<string, object>; required?: string[] }),
			description: command.summary,
			additionalProperties: false,
		});
		schemas[name] = {
			type: 'object',
			description: command.summary,
			required: ['id', 'command', 'input'],
			properties: {
				id: {
					type: 'string',
					format: 'uuid',
					description: 'Made by the sender; the same id again answers the first answer and does nothing.',
				},
				command: { const: name },
				input: { $ref: `#/components/schemas/${name}Input` },
			},
		};
		if (name in answers.results) schemas[`${name}Result`] = answers.results[name as keyof Results];
		calls.push(name);
	}
	return {
		openapi: '3.1.0',
		info: {
			title: 'Harrow',
			version,
			description:
				'Everything a person can do in Harrow, for scripts. Make a token on your own page and send it as a bearer token.',
		},
		security: [{ token: [] }],
		paths: {
			'/api/commands': {
				post: {
					operationId: 'command',
					summary: 'Does something: the one door for changes',
					requestBody: {
						required: true,
						content: {
							'application/json': {
								schema: { oneOf: calls.map((name) => ({ $ref: `#/components/schemas/${name}` })) },
							},
						},
					},
					responses: { '200': json('Done', { $ref: '#/components/schemas/Answer' }), '4XX': problem },
				},
			},
			...Object.fromEntries(Object.entries(READS).map(([path, one]) => [path, read(path as Read, one)])),
			'/api/uploads': {
				post: {
					operationId: 'upload',
					summary: 'Takes a file as it is; AttachFiles puts it on a card, within a day',
					requestBody: {
						required: true,
						content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
					},
					responses: {
						'200': json('Kept for a day', {
							type: 'object',
							required: ['upload', 'media', 'bytes'],
							properties: {
								upload: { type: 'string', format: 'uuid' },
								media: { type: ['string', 'null'], description: 'What it is by its first bytes' },
								bytes: { type: 'integer' },
							},
						}),
						'4XX': problem,
						'507': problem,
					},
				},
			},
			'/api/boards/{board}/here': {
				post: {
					operationId: 'here',
					summary:
						'Says which card is open on a page that listens to the board, and in which field its reader writes',
					parameters: [parameter('board', 'path', 'The board, as in its address')],
					requestBody: {
						required: true,
						content: {
							'application/json': {
								schema: {
									type: 'object',
									required: ['page'],
									properties: {
										page: { type: 'string', format: 'uuid', description: 'As it was named to the stream' },
										card: { type: ['string', 'null'], format: 'uuid' },
										field: { type: ['string', 'null'] },
									},
								},
							},
						},
					},
					responses: {
						'200': json('Noted', {
							type: 'object',
							required: ['noted'],
							properties: { noted: { const: true } },
						}),
						'4XX': problem,
					},
				},
			},
			'/api/mail': {
				post: {
					operationId: 'mail',
					summary:
						'Takes in a letter that answers one of Harrow’s, from the mail server that it came to: it is said on the card',
					security: [],
					parameters: [
						{
							name: 'to',
							in: 'query',
							description: 'The address that it was brought to',
							schema: { type: 'string' },
						},
						{
							name: 'x-harrow-mail-key',
							in: 'header',
							required: true,
							description: 'What HARROW_MAIL_KEY is set to',
							schema: { type: 'string' },
						},
					],
					requestBody: {
						required: true,
						content: { 'message/rfc822': { schema: { type: 'string', format: 'binary' } } },
					},
					responses: {
						'200': json('Taken', {
							type: 'object',
							required: ['said'],
							properties: {
								said: { type: 'boolean', description: 'False where a program wrote it: then it is let be' },
							},
						}),
						'4XX': problem,
					},
				},
			},
			'/api/files/{file}': {
				get: {
					operationId: 'file',
					summary: 'A file of a card',
					parameters: placesIn('{file}'),
					responses: {
						'200': {
							description: 'The file as it was sent',
							content: { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } },
						},
						'4XX': problem,
					},
				},
			},
			'/api/boards/{board}/live': {
				get: {
					operationId: 'live',
					summary: 'Changes of a board as server-sent events',
					parameters: [
						...placesIn('{board}'),
						parameter('since', 'query', 'The number of the last event you know'),
						parameter('page', 'query', 'A UUID for the page: others are told that its reader looks'),
					],
					responses: {
						'200': {
							description: 'A stream',
							content: { 'text/event-stream': { schema: { type: 'string' } } },
						},
						'4XX': problem,
					},
				},
			},
			'/api/teams/{team}/live': {
				get: {
					operationId: 'teamLive',
					summary: 'That something happened on a board of a team, as server-sent events',
					parameters: placesIn('{team}'),
					responses: {
						'200': {
							description: 'A stream',
							content: { 'text/event-stream': { schema: { type: 'string' } } },
						},
						'4XX': problem,
					},
				},
			},
			'/api/you/live': {
				get: {
					operationId: 'liveNotices',
					summary: 'That you have another notice, as server-sent events of the kind notices',
					responses: {
						'200': {
							description: 'A stream',
							content: { 'text/event-stream': { schema: { type: 'string' } } },
						},
						'4XX': problem,
					},
				},
			},
		},
		components: {
			securitySchemes: { token: { type: 'http', scheme: 'bearer' } },
			schemas: {
				...schemas,
				...answers.schemas,
				...Object.fromEntries(
					Object.entries(READS).map(([path, { id }]) => [answerOf(id), answers.answers[path as Read]]),
				),
				Answer: {
					type: 'object',
					required: ['id', 'command', 'seq', 'undoable', 'result'],
					properties: {
						id: { type: 'string', format: 'uuid' },
						command: { type: 'string' },
						seq: {
							type: ['integer', 'null'],
							description: 'The number of the board’s last event after the command',
						},
						undoable: { type: 'boolean' },
						result: {
							description: 'What the command answers beside; of those that have no result an empty object',
							anyOf: [
								...Object.keys(answers.results).map((name) => ({
									$ref: `#/components/schemas/${name}Result`,
								})),
								{ type: 'object', maxProperties: 0 },
							],
						},
						advice: { type: 'string' },
						secret: { type: 'string', description: 'Told this once' },
					},
				},
				Problem: {
					type: 'object',
					description: 'Problem details (RFC 9457)',
					required: ['type', 'title', 'status', 'code'],
					properties: {
						type: { type: 'string' },
						title: { type: 'string', description: 'One plain sentence' },
						status: { type: 'integer' },
						code: { type: 'string', description: 'Stable' },
						field: { type: 'string' },
					},
				},
			},
		},
	};
}

/** Fields that may be null but must be there are listed with the required ones. */
function named(
	schema: Record<string, unknown> & { properties?: Record<string, object>; required?: string[] },
): object {
	const properties = Object.entries(schema.properties ?? {}).map(([field, value]) => {
		const { 'x-required': must, 'x-optional': may, ...rest } = value as Record<string, unknown>;
		return { field, must: must && !may, may, rest };
	});
	const required = [
		...(schema.required ?? []).filter(
			(field) => !properties.some((known) => known.field === field && known.may),
		),
		...properties.flatMap(({ field, must }) => (must ? [field] : [])),
	];
	return {
		...schema,
		properties: Object.fromEntries(properties.map(({ field, rest }) => [field, rest])),
		required,
	};
}
