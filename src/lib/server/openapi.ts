import { FIGURES } from '../../core/pages/look-back.ts';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { COMMANDS } from './commands/index.ts';

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
const read = (summary: string, ...parameters: object[]) => ({
	get: { summary, parameters, responses: { '200': json('Found'), '401': problem, '404': problem } },
});

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
			'/api/boards': read('The boards you may see'),
			'/api/boards/{board}': read(
				'A board with its cards',
				parameter('board', 'path', 'The last part of the board’s address'),
			),
			'/api/boards/{board}/room': read(
				'Who has how much room in a sprint of a board',
				parameter('board', 'path', 'The last part of the board’s address'),
				parameter(
					'sprint',
					'query',
					'The number of the sprint; the running one, else the next, where it is left out',
				),
			),
			'/api/boards/{board}/look-back': read(
				'Velocity, reliability and carry-over of the closed sprints of a board',
				parameter('board', 'path', 'The last part of the board’s address'),
			),
			'/api/boards/{board}/look-back/{sprint}': read(
				'The report of a sprint: ledger, stints, day by day, changes of scope',
				parameter('board', 'path', 'The last part of the board’s address'),
				parameter('sprint', 'path', 'The number of the sprint'),
			),
			'/api/boards/{board}/look-back/cards': read(
				'The cards behind one figure of looking back',
				parameter('board', 'path', 'The last part of the board’s address'),
				parameter('of', 'query', `One of: ${FIGURES.join(', ')}`),
				parameter('which', 'query', 'The number of the sprint, the code of the reason, or how many sprints'),
			),
			'/api/boards/{board}/table': {
				post: {
					summary:
						'Looks at a table of cards (CSV): what would be made of it, and which lines cannot be read',
					parameters: [parameter('board', 'path', 'The last part of the board’s address')],
					requestBody: {
						required: true,
						content: {
							'application/json': {
								schema: {
									type: 'object',
									required: ['file'],
									properties: {
										file: { type: 'string', description: 'The file itself' },
										mapping: {
											type: ['object', 'null'],
											description: 'For each field the column that holds it, counted from 0',
											additionalProperties: { type: 'integer', minimum: 0 },
										},
									},
								},
							},
						},
					},
					responses: { '200': json('Looked at; nothing was made'), '4XX': problem },
				},
			},
			'/api/boards/{board}/flow': read(
				'The flow figures of a board',
				parameter('board', 'path', 'The last part of the board’s address'),
				parameter('from', 'query', 'First day, 2026-11-23'),
				parameter('to', 'query', 'Last day'),
				parameter('days', 'query', 'calendar or working'),
			),
			'/api/boards/{board}/live': read(
				'Changes of a board as server-sent events',
				parameter('board', 'path', 'The last part of the board’s address'),
				parameter('since', 'query', 'The number of the last event you know'),
			),
			'/api/cards/{key}': read('A card with its history', parameter('key', 'path', 'Such as TIDE-214')),
			'/api/find': read(
				'Cards whose key or title holds a text; boards, people and sprints too, unless a board is named',
				parameter('q', 'query', 'The text'),
				parameter('board', 'query', 'The last part of a board’s address: only its cards'),
			),
		},
		components: {
			securitySchemes: { token: { type: 'http', scheme: 'bearer' } },
			schemas: {
				...schemas,
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
						result: { type: 'object' },
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
