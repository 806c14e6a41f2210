import { keepUpload } from '../../src/lib/server/files.ts';
import { pictureOf } from './files.ts';
import type { Scene } from './scene.ts';
import { command } from './small-board.ts';

/** A file on a card of the board. */
async function fileOf(s: Scene): Promise<string> {
	const { upload } = await keepUpload(s.board.lead, pictureOf(Buffer.from('colour')));
	const files = [{ upload, name: 'quay.gif' }];
	const done = await command(s.board.lead, 'AttachFiles', { card: s.working, files });
	return `/api/files/${(done.result.files as string[])[0]}`;
}

/** A retrospective of the board. */
function retrospectiveOf(part = '') {
	return async (s: Scene): Promise<string> => {
		const input = { board: s.board.id, columns: ['To try'], anonymous: false, votes: 3 };
		await command(s.board.lead, 'HoldRetrospective', input).catch(() => undefined);
		return `/boards/${s.board.slug}/retrospectives/1${part}`;
	};
}

/** What of an address is seen by whom: everyone signed in, those who may see the board, those in the team, those who lead it, anybody, or nobody but whoever asked for it. */
export const PAGES: Record<
	string,
	[
		sees: 'signed in' | 'board' | 'team' | 'lead' | 'anybody' | 'nobody',
		address?: (s: Scene) => string | Promise<string>,
	]
> = {
	'/': ['signed in'],
	'/you': ['signed in'],
	'/teams/new': ['signed in'],
	'/api/boards': ['signed in'],
	'/api/find': ['signed in'],
	'/api/notices': ['signed in'],
	'/api/you/live': ['signed in'],
	'/notices': ['signed in'],
	'/mine': ['signed in'],
	'/api/mine': ['signed in'],
	'/api/openapi.json': ['anybody'],
	'/health': ['anybody'],
	'/sign-in': ['anybody'],
	'/first': ['anybody'],
	'/join/[secret]': ['anybody', () => '/join/nothing'],
	'/reset/[secret]': ['anybody', () => '/reset/nothing'],
	'/stop/[secret]': ['anybody', () => '/stop/nothing'],
	'/forgotten': ['anybody'],
	'/calendar/[secret]': [
		'anybody',
		async (s) => {
			const { secret } = await command(s.board.viewer, 'MakeCalendarAddress', { board: null });
			return `/calendar/${secret}`;
		},
	],
	'/api/teams/[team]/panorama': ['team', (s) => `/api/teams/${s.board.team}/panorama`],
	'/api/teams/[team]/conditions': ['team', (s) => `/api/teams/${s.board.team}/conditions`],
	'/api/teams/[team]/loose': ['team', (s) => `/api/teams/${s.board.team}/loose`],
	'/api/teams/[team]/days': ['team', (s) => `/api/teams/${s.board.team}/days`],
	'/api/teams/[team]/live': ['team', (s) => `/api/teams/${s.board.team}/live`],
	'/outbox': ['signed in'],
	'/asked': ['signed in'],
	'/activity': ['signed in'],
	'/activity/file': ['signed in'],
	'/ask/[board]': [
		'signed in',
		async (s) => {
			const page = { words: '', fields: [], column: null, top: false };
			await command(s.board.lead, 'ChangeAskPage', { board: s.board.id, page });
			return `/ask/${s.board.slug}`;
		},
	],
	'/asked/[key]': [
		'nobody',
		async (s) => {
			const page = { words: '', fields: [], column: null, top: false };
			await command(s.board.lead, 'ChangeAskPage', { board: s.board.id, page });
			const { result } = await command(s.board.outsider, 'AskForCard', {
				board: s.board.id,
				title: 'A lamp',
			});
			return `/asked/${String(result.key)}`;
		},
	],
	'/teams/[team]/letters': ['lead', (s) => `/teams/${s.board.team}/letters`],
	'/cards/[key]': ['board', (s) => `/cards/${s.board.key}-1`],
	'/api/cards/[key]': ['board', (s) => `/api/cards/${s.board.key}-1`],
	'/api/cards/[key]/dates': ['board', (s) => `/api/cards/${s.board.key}-1/dates?due=2026-12-18`],
	'/api/boards/[board]/shift': [
		'board',
		(s) => `/api/boards/${s.board.slug}/shift?of=board&from=2026-11-23&days=2`,
	],
	'/boards/[board]/faces': ['board', (s) => `/boards/${s.board.slug}/faces`],
	'/api/files/[file]': ['board', fileOf],
	'/boards/[board]/words': ['board', (s) => `/boards/${s.board.slug}/words?q=anchor`],
	'/boards/[board]/flow/cards': ['board', (s) => `/boards/${s.board.slug}/flow/cards?of=finished`],
	'/boards/[board]/flow/figures': ['board', (s) => `/boards/${s.board.slug}/flow/figures?of=days`],
	'/boards/[board]/set-up/clock': [
		'board',
		(s) => `/boards/${s.board.slug}/set-up/clock?column=${s.board.columns.Ready}`,
	],
	'/boards/[board]/initiatives/[initiative]': [
		'board',
		async (s) => {
			const cards = [{ title: 'A lamp for it', initiative: 'Winter' }];
			await command(s.board.lead, 'AddCards', { board: s.board.id, cards });
			return `/boards/${s.board.slug}/initiatives/Winter`;
		},
	],
	'/boards/[board]/retrospectives/[number]': ['board', retrospectiveOf()],
	'/boards/[board]/retrospectives/[number]/file': ['board', retrospectiveOf('/file')],
	'/teams/[team]/account/cards': ['team', (s) => `/teams/${s.board.team}/account/cards?of=worked`],
	'/boards/[board]/look-back/[sprint]/cards': [
		'board',
		(s) => `/boards/${s.board.slug}/look-back/1/cards?of=day&which=2026-11-23`,
	],
	'/api/boards/[board]/look-back/cards': [
		'board',
		(s) => `/api/boards/${s.board.slug}/look-back/cards?of=needed&which=1`,
	],
};
for (const place of [
	'',
	'/about',
	'/archive',
	'/backlog',
	'/backlog/cards',
	'/flow',
	'/look-back',
	'/look-back/[sprint]',
	'/look-back/[sprint]/file',
	'/plan',
	'/retrospectives',
	'/rounds',
	'/set-up',
	'/settle',
])
	PAGES[`/boards/[board]${place}`] = [
		'board',
		(s) => `/boards/${s.board.slug}${place.replace('[sprint]', '1')}`,
	];
for (const place of ['', '/flow', '/live', '/look-back', '/look-back/[sprint]', '/room'])
	PAGES[`/api/boards/[board]${place}`] = [
		'board',
		(s) => `/api/boards/${s.board.slug}${place.replace('[sprint]', '1')}`,
	];
for (const place of [
	'',
	'/account',
	'/account/file',
	'/new-board',
	'/panorama',
	'/panorama/file',
	'/people',
	'/people/days',
	'/timesheet',
])
	PAGES[`/teams/[team]${place}`] = ['team', (s) => `/teams/${s.board.team}${place}`];
/** What only takes something in. */
export const TAKES = [
	'/api/commands',
	'/api/mail',
	'/api/faults',
	'/api/boards/[board]/table',
	'/api/teams/[team]/dates',
	'/api/boards/[board]/here',
	'/api/uploads',
	'/sign-out',
];
