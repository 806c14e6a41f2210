import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, test } from 'node:test';
import { Validator } from '@seriousme/openapi-schema-validator';
import { Ajv2020 } from 'ajv/dist/2020.js';
import formats from 'ajv-formats';
import { OpenAPIClientAxios } from 'openapi-client-axios';
import { apiAnswers } from '../scripts/describe.ts';
import type { Reads } from '../src/lib/api.ts';
import { COMMANDS } from '../src/lib/server/commands/index.ts';
import { READS } from '../src/lib/server/reads.ts';
import { useDatabase } from './support/database.ts';
import { signIn, startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const cookie = await signIn(server.url, 'Ines Okoro');
const description = await (await fetch(`${server.url}/api/openapi.json`)).json();
const { schemas } = description.components;

const { rows: teams } = await db.query('select team_id as id from board where key = $1', ['TIDE']);
const team = teams[0].id as string;

/** A client that is made of the description alone. */
const client = await new OpenAPIClientAxios({
	definition: description,
	axiosConfigDefaults: {
		baseURL: server.url,
		headers: { cookie, origin: server.url },
		validateStatus: () => true,
	},
}).init();

const ajv = new Ajv2020({ strict: false });
formats.default(ajv);
ajv.addSchema(description, 'api');
function check(schema: string, value: unknown): void {
	const valid = ajv.validate({ $ref: `api#/components/schemas/${schema}` }, value);
	assert.ok(valid, `${schema}: ${ajv.errorsText(ajv.errors?.slice(0, 5))}`);
}

/** What every read is tried with, so often that each of its answers is seen once full and once without much in it. */
const TRIED: { [P in keyof Reads]: [parameters: Record<string, string>, body?: object][] } = {
	'/api/boards': [[{}]],
	'/api/boards/{board}': [[{ board: 'tidewatch' }], [{ board: 'buoy-yard' }]],
	'/api/boards/{board}/room': [
		[{ board: 'tidewatch' }],
		[{ board: 'tidewatch', sprint: '15' }],
		[{ board: 'buoy-yard' }],
	],
	'/api/boards/{board}/flow': [
		[{ board: 'tidewatch' }],
		[{ board: 'tidewatch', from: '2026-10-01', to: '2026-10-31', days: 'working' }],
		[{ board: 'buoy-yard' }],
	],
	'/api/boards/{board}/look-back': [[{ board: 'tidewatch' }], [{ board: 'buoy-yard' }]],
	'/api/boards/{board}/look-back/cards': [
		[{ board: 'tidewatch', of: 'delivered', which: '12' }],
		[{ board: 'tidewatch', of: 'needed', which: '2' }],
	],
	'/api/boards/{board}/look-back/{sprint}': [
		[{ board: 'tidewatch', sprint: '13' }],
		[{ board: 'shore-desk', sprint: '3' }],
	],
	'/api/boards/{board}/table': [
		[{ board: 'tidewatch' }, { file: 'title,size,due\nA,3,2026-12-01\nB,wrong,never' }],
	],
	'/api/boards/{board}/shift': [[{ board: 'tidewatch', of: 'board', from: '2026-11-23', days: '3' }]],
	'/api/cards/{key}/dates': [[{ key: 'TIDE-148', due: '2026-12-18' }]],
	'/api/cards/{key}': [[{ key: 'TIDE-1' }], [{ key: 'TIDE-200' }]],
	'/api/teams/{team}/panorama': [
		[{ team: 'the demo’s' }],
		[{ team: 'the demo’s', as: 'kinds' }],
		[{ team: 'the demo’s', where: 'blocked:yes' }],
	],
	'/api/teams/{team}/dates': [
		[{ team: 'the demo’s' }, { cards: [{ card: 'TIDE-148', start: null, due: '2026-12-18' }] }],
	],
	'/api/teams/{team}/conditions': [[{ team: 'the demo’s' }]],
	'/api/teams/{team}/loose': [[{ team: 'the demo’s' }]],
	'/api/teams/{team}/days': [[{ team: 'the demo’s' }], [{ team: 'the demo’s', day: '2026-11-02' }]],
	'/api/mine': [[{}], [{ of: 'given' }], [{ of: 'done' }], [{ of: 'reviewing' }]],
	'/api/notices': [[{}], [{ of: 'asks' }], [{ of: 'away' }], [{ q: 'nothing of that kind' }]],
	'/api/find': [[{ q: 'tide' }], [{ q: '14' }], [{ q: 'Ines' }], [{ q: '' }]],
};

describe('the published description', () => {
	test('is what the types of the answers say now: `npm run describe` writes it anew', () => {
		assert.equal(readFileSync('src/lib/server/api-answers.json', 'utf8'), apiAnswers());
	});

	test('is a description by the standard, and every name in it is there once', async () => {
		const found = await new Validator().validate(description);
		assert.ok(found.valid, JSON.stringify(found.errors)?.slice(0, 2000));
		const names = [
			...[...COMMANDS.keys()].flatMap((name) => [name, `${name}Input`]),
			...Object.keys(JSON.parse(apiAnswers()).results).map((name) => `${name}Result`),
			...Object.keys(JSON.parse(apiAnswers()).schemas),
			...Object.values(READS).map(({ id }) => `${id[0]!.toUpperCase()}${id.slice(1)}Answer`),
			...['Answer', 'Problem'],
		];
		assert.equal(new Set(names).size, names.length);
		assert.equal(Object.keys(schemas).length, names.length);
	});

	test('tells of every route of the API, and each route says which it is', () => {
		const routes = readdirSync('src/routes/api', { recursive: true, encoding: 'utf8' })
			.filter((file) => file.endsWith('+server.ts'))
			.map((file) => ({
				path: `/api/${file}`.replace('/+server.ts', '').replace(/\[(\w+)\]/g, '{$1}'),
				code: readFileSync(`src/routes/api/${file}`, 'utf8'),
			}));
		assert.ok(routes.length > 10);
		const beside = ['/api/faults', '/api/openapi.json'];
		assert.deepEqual(
			routes.map(({ path }) => path).sort(),
			[...Object.keys(description.paths), ...beside].sort(),
		);
		for (const { path, code } of routes)
			if (path in READS) assert.equal(/ reads\(\s*'([^']+)'/.exec(code)?.[1], path);
	});

	test('names every command with the fields that its class has', () => {
		assert.equal(description.openapi, '3.1.0');
		assert.deepEqual(Object.keys(schemas.MoveCardInput.properties).sort(), [
			'below',
			'card',
			'column',
			'lane',
			'reason',
			'version',
		]);
		assert.deepEqual(schemas.SizeCardInput.properties.size, { type: 'number', minimum: 0, maximum: 9999 });
		const commands =
			description.paths['/api/commands'].post.requestBody.content['application/json'].schema.oneOf;
		assert.equal(commands.length, COMMANDS.size);
		assert.deepEqual(schemas.MoveCardInput.required.sort(), ['card', 'column', 'version']);
		assert.deepEqual(schemas.MoveCardInput.properties.column.type, ['string', 'null']);
		for (const { $ref } of commands) assert.ok(schemas[$ref.split('/').at(-1)], $ref);
	});
});

const idOf = async (key: string): Promise<string> => {
	const [board, number] = key.split('-');
	const { rows } = await db.query<{ id: string }>(
		'select c.id from card c join board b on b.id = c.board_id where b.key = $1 and c.number = $2',
		[board, number],
	);
	return rows[0]!.id;
};

describe('a client made of the description', () => {
	for (const [path, asked] of Object.entries(TRIED))
		for (const [parameters, body] of asked)
			test(`${path} ${JSON.stringify(parameters)}`, async () => {
				const { id } = READS[path as keyof Reads];
				if (parameters.team) parameters.team = team;
				for (const one of (body as { cards?: { card: string }[] })?.cards ?? [])
					one.card = await idOf(one.card);
				const answer = await client[id]!(parameters, body);
				assert.equal(answer.status, 200, JSON.stringify(answer.data));
				check(`${id[0]!.toUpperCase()}${id.slice(1)}Answer`, answer.data);
			});

	test('is answered as declared when it sends a command, and when it is refused', async () => {
		const { data: board } = await client.board!({ board: 'tidewatch' });
		const card = board.cards.find((one: { clock: string }) => one.clock === 'running');
		const sent = {
			id: randomUUID(),
			command: 'RenameCard',
			input: { card: card.id, version: card.version, title: 'Said by a script' },
		};
		check('RenameCard', sent);
		const done = await client.command!({}, sent);
		assert.equal(done.status, 200);
		check('Answer', done.data);
		const refused = await client.command!({}, { ...sent, id: randomUUID() });
		assert.equal(refused.status, 409);
		check('Problem', refused.data);
		const none = await client.board!({ board: 'nothing' });
		assert.equal(none.status, 404);
		check('Problem', none.data);
	});
});
