import { randomBytes, randomUUID } from 'node:crypto';
import type pg from 'pg';
import { keepUpload } from '../../src/lib/server/files.ts';
import { pictureOf } from './files.ts';
import type { Sent } from './at-once.ts';
import { asSeen, type Scene } from './scene.ts';
import { command } from './small-board.ts';
import { at, seen } from './sprint.ts';

export const TODAY = '2026-11-23';
const CALENDAR = (day: string) =>
	`BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:away-1\r\nDTSTART;VALUE=DATE:${day}\r\nSUMMARY:Away\r\nEND:VEVENT\r\nEND:VCALENDAR`;

export const board = (s: Scene) => ({ board: s.board.id });
export const team = (s: Scene) => ({ team: s.board.team, person: s.board.member.id });
/** Every command that says it can be taken back: what is done before it, and the command itself. */
export const undoableCommands = (db: pg.Pool): Record<string, (s: Scene) => Promise<Sent> | Sent> => {
	const now = async (s: Scene, id: string) => (await seen(db, id))[0]!;
	const initiative = async (s: Scene) => {
		await command(s.board.member, 'ChangeCards', {
			...board(s),
			cards: [await now(s, s.lined)],
			initiative: 'Winter',
		});
		return 'Winter';
	};

	const initiativeId = async (s: Scene): Promise<string> => {
		const name = await initiative(s);
		const { rows } = await db.query('select initiative_named($1, $2) as id', [s.board.id, name]);
		return rows[0].id as string;
	};
	const milestone = async (s: Scene): Promise<string> => {
		const input = { team: s.board.team, name: 'Harbour day', day: '2026-12-18' };
		const { result } = await command(s.board.lead, 'AddMilestone', input);
		await command(s.board.lead, 'ChangeMilestone', {
			...{ team: s.board.team, milestone: result.milestone, cards: [`${s.board.key}-1`] },
		});
		return result.milestone as string;
	};
	const booked = async (s: Scene): Promise<string[]> => {
		const days = { ...team(s), from: TODAY, to: '2026-11-24', part: 'morning', anyway: true };
		await command(s.board.lead, 'BookDays', { ...days, board: s.board.id });
		const { rows } = await db.query(
			'select id from booking where person_id = $1 and withdrawn_at is null order by id',
			[s.board.member.id],
		);
		return rows.map(({ id }) => id as string);
	};

	/** A small picture that was sent, and two of them on a card. */
	const sent = (s: Scene) => keepUpload(s.board.member, pictureOf(randomBytes(6)));
	const attached = async (s: Scene): Promise<string[]> => {
		const files = [await sent(s), await sent(s)].map(({ upload }, i) => ({ upload, name: `quay ${i}.gif` }));
		const done = await command(s.board.member, 'AttachFiles', { card: s.lined, files });
		return done.result.files as string[];
	};
	const lineOn = async (s: Scene): Promise<string> => {
		const line = randomUUID();
		const lines = [
			{ id: line, text: 'Bolts', done: false, quantity: '12', link: 'https://harbour.example/bolts' },
		];
		await command(s.board.member, 'ChecklistCard', { ...asSeen(s, s.lined), lines });
		return line;
	};

	const lanes = async (s: Scene): Promise<string[]> => {
		const made = ['North', 'Middle'].map((name) => ({ ...board(s), name }));
		const ids: string[] = [];
		for (const lane of made) ids.push((await command(s.board.lead, 'AddLane', lane)).result.lane as string);
		return ids;
	};

	return {
		AddAbsence: (s) => [s.board.member, 'AddAbsence', { ...team(s), from: TODAY, to: TODAY, hours: 4 }],
		WithdrawAbsence: async (s) => {
			const made = await command(s.board.member, 'AddAbsence', { ...team(s), from: TODAY, to: TODAY });
			return [s.board.member, 'WithdrawAbsence', { team: s.board.team, absence: made.result.absence }];
		},
		ReadCalendar: async (s) => {
			await command(s.board.member, 'ReadCalendar', { ...team(s), file: CALENDAR('20261201') });
			return [s.board.member, 'ReadCalendar', { ...team(s), file: CALENDAR('20261203') }];
		},
		ChangeWeek: (s) => [
			s.board.lead,
			'ChangeWeek',
			{ ...team(s), from: '2026-01-01', hours: [4, 4, 4, 4, 4, 0, 0] },
		],
		ChangeShares: (s) => [
			s.board.lead,
			'ChangeShares',
			{ ...team(s), from: TODAY, shares: [{ board: s.board.id, share: 0.5 }] },
		],
		ChangeSkills: async (s) => {
			await command(s.board.member, 'ChangeSkills', { ...team(s), skills: ['welding', 'radio'] });
			return [s.board.member, 'ChangeSkills', { ...team(s), skills: ['radio', 'rigging'] }];
		},
		ChangeRate: async (s) => {
			await command(s.board.lead, 'ChangeRate', { ...team(s), from: TODAY, rate: 40 });
			return [s.board.lead, 'ChangeRate', { ...team(s), from: TODAY, rate: 44 }];
		},
		SetHoliday: async (s) => {
			await command(s.board.lead, 'SetHoliday', {
				team: s.board.team,
				day: '2026-12-24',
				name: 'Eve',
				holiday: true,
			});
			return [s.board.lead, 'SetHoliday', { team: s.board.team, day: '2026-12-24', holiday: false }];
		},
		ChangeBudget: async (s) => [
			s.board.lead,
			'ChangeBudget',
			{ ...board(s), initiative: await initiative(s), hours: 80, money: 4000 },
		],
		ChangeType: async (s) => {
			await command(s.board.lead, 'ChangeType', { ...board(s), name: 'Repair', checklist: ['Cause'] });
			return [
				s.board.lead,
				'ChangeType',
				{ ...board(s), name: 'Repair', checklist: ['Cause', 'Photograph'], size: 3, class: 'fixed' },
			];
		},
		ChangeSettling: (s) => [
			s.board.lead,
			'ChangeSettling',
			{ ...board(s), membersSettle: true, doneDays: 3 },
		],
		ChangeColumn: (s) => [
			s.board.lead,
			'ChangeColumn',
			{ column: s.board.columns.Check, version: s.column, limit: 4, mode: 'hold', policy: 'Looked at' },
		],
		AddField: (s) => [s.board.lead, 'AddField', { ...board(s), name: 'Depth', kind: 'number' }],
		ChangeField: async (s) => {
			const made = await command(s.board.lead, 'AddField', {
				...board(s),
				name: 'Harbour',
				kind: 'choice',
				choices: ['North', 'South'],
			});
			const [north, south] = made.result.choices as { id: string; name: string }[];
			return [
				s.board.lead,
				'ChangeField',
				{
					...board(s),
					field: made.result.field,
					name: 'Quay',
					choices: [south, { ...north, name: 'Far north' }, { name: 'East' }],
					retired: true,
				},
			];
		},
		SetField: async (s) => {
			const made = await command(s.board.lead, 'AddField', { ...board(s), name: 'Depth', kind: 'number' });
			await command(s.board.member, 'SetField', {
				...asSeen(s, s.lined),
				field: made.result.field,
				value: 3,
			});
			return [
				s.board.member,
				'SetField',
				{ ...(await now(s, s.lined)), field: made.result.field, value: 4.5 },
			];
		},
		KeepLens: (s) => [
			s.board.member,
			'KeepLens',
			{ ...board(s), name: 'Late', query: 'where=due:~late', shared: false },
		],
		KeepTeamLens: (s) => [
			s.board.viewer,
			'KeepTeamLens',
			{ team: s.board.team, name: 'Late', query: 'late=yes', shared: false },
		],
		DropTeamLens: async (s) => {
			const lens = { team: s.board.team, name: 'Late', query: 'late=yes', shared: true };
			const kept = await command(s.board.lead, 'KeepTeamLens', lens);
			return [s.board.lead, 'DropTeamLens', { team: s.board.team, lens: kept.result.lens }];
		},
		DropLens: async (s) => {
			const kept = await command(s.board.viewer, 'KeepLens', {
				...board(s),
				name: 'Mine',
				query: 'by=owners',
				shared: false,
			});
			return [s.board.viewer, 'DropLens', { ...board(s), lens: kept.result.lens }];
		},
		ChangeFace: async (s) => {
			const face = { ...board(s), spacing: 'compact', width: 'wide' };
			await command(s.board.lead, 'ChangeFace', { ...face, fields: ['due'], everyone: false });
			return [s.board.lead, 'ChangeFace', { ...face, fields: ['labels', 'left'], everyone: true }];
		},
		ReviewCard: (s) => [
			s.board.member,
			'ReviewCard',
			{ ...asSeen(s, s.lined), reviewer: s.board.lead.id, due: '2026-11-27' },
		],
		PercentCard: (s) => [s.board.member, 'PercentCard', { ...asSeen(s, s.lined), percent: 40 }],
		PrivateCard: async (s) => {
			// Whoever has nothing to do with it does not see it any more.
			await command(s.board.member, 'AssignCard', { ...asSeen(s, s.lined), owners: [s.board.lead.id] });
			return [s.board.member, 'PrivateCard', { ...(await now(s, s.lined)), private: true }];
		},
		AttachFiles: async (s) => [
			s.board.member,
			'AttachFiles',
			{ card: s.lined, files: [{ upload: (await sent(s)).upload, name: 'quay.gif' }] },
		],
		RemoveFile: async (s) => [s.board.member, 'RemoveFile', { card: s.lined, file: (await attached(s))[0] }],
		PictureCard: async (s) => {
			const [, second] = await attached(s);
			return [s.board.member, 'PictureCard', { ...(await now(s, s.lined)), file: second }];
		},
		AddMilestone: (s) => [
			s.board.lead,
			'AddMilestone',
			{ team: s.board.team, board: s.board.id, name: 'Harbour day', day: '2026-12-18' },
		],
		ChangeMilestone: async (s) => [
			s.board.lead,
			'ChangeMilestone',
			{
				...{
					team: s.board.team,
					milestone: await milestone(s),
					name: 'Day of the harbour',
					day: '2026-12-21',
				},
				...{ board: s.board.id, cards: [`${s.board.key}-2`], initiatives: [await initiativeId(s)] },
			},
		],
		DropMilestone: async (s) => [
			s.board.lead,
			'DropMilestone',
			{ team: s.board.team, milestone: await milestone(s) },
		],
		AddInitiative: (s) => [s.board.lead, 'AddInitiative', { ...board(s), name: 'Frost' }],
		StageInitiative: async (s) => {
			const stages = ['Idea', 'Under way'];
			await command(s.board.lead, 'ChangeTeam', { team: s.board.team, stages });
			return [
				s.board.lead,
				'StageInitiative',
				{ team: s.board.team, initiative: await initiativeId(s), stage: 'Under way' },
			];
		},
		ShareInitiative: async (s) => [
			s.board.lead,
			'ShareInitiative',
			{ team: s.board.team, initiative: await initiativeId(s), wide: true, name: 'Frost' },
		],
		BookDays: async (s) => {
			const days = { ...team(s), from: TODAY, to: '2026-11-25', part: 'day', anyway: true };
			await command(s.board.lead, 'BookDays', { ...days, site: 'Lamb Island' });
			return [s.board.lead, 'BookDays', { ...days, site: 'Outer Skerry', instead: true }];
		},
		DropBookings: async (s) => [
			s.board.lead,
			'DropBookings',
			{ team: s.board.team, bookings: await booked(s) },
		],
		NoteWeek: async (s) => {
			await command(s.board.lead, 'NoteWeek', { ...team(s), monday: TODAY, note: 'Home at noon' });
			return [s.board.lead, 'NoteWeek', { ...team(s), monday: TODAY, note: '' }];
		},
		AgreeAbsence: async (s) => {
			await command(s.board.lead, 'ChangeTeam', { team: s.board.team, agreeAbsences: true });
			const made = await command(s.board.member, 'AddAbsence', { ...team(s), from: TODAY, to: TODAY });
			return [
				s.board.lead,
				'AgreeAbsence',
				{ team: s.board.team, absence: made.result.absence, agreed: true },
			];
		},
		MoveDates: async (s) => {
			const { lead, team } = s.board;
			const { result } = await command(lead, 'MakeBoard', {
				...{ team, name: 'Yard', key: `Y${s.board.key}`, unit: 'hours', sprintDays: null },
			});
			const there = {
				board: result.board,
				cards: [{ title: 'Painted', start: '2026-11-26', due: '2026-11-27' }],
			};
			await command(lead, 'AddCards', there);
			const { rows } = await db.query<{ card: string; number: number }>(
				'select id as card, number from card where board_id = $1',
				[result.board],
			);
			const [other] = rows;
			await command(s.board.member, 'DateCard', { ...asSeen(s, s.lined), due: '2026-11-25' });
			const link = { ...(await now(s, s.lined)), kind: 'blocks', to: `Y${s.board.key}-${other!.number}` };
			await command(s.board.member, 'LinkCard', link);
			return [
				s.board.member,
				'MoveDates',
				{
					team,
					cards: [{ ...(await now(s, s.lined)), start: null, due: '2026-11-27' }],
					followers: [{ ...(await now(s, other!.card)), start: '2026-11-30', due: '2026-12-01' }],
				},
			];
		},
		WriteNotes: async (s) => {
			await command(s.board.member, 'WriteNotes', { ...board(s), version: 1, text: 'The crane is away.' });
			return [s.board.member, 'WriteNotes', { ...board(s), version: 2, text: 'The crane is **back**.' }];
		},
		AttachToPage: async (s) => {
			await command(s.board.member, 'CommentPage', { ...board(s), text: 'Here it comes.' });
			const files = [{ upload: (await sent(s)).upload, name: 'quay.gif' }];
			return [s.board.member, 'AttachToPage', { ...board(s), files }];
		},
		RemovePageFile: async (s) => {
			const files = [{ upload: (await sent(s)).upload, name: 'quay.gif' }];
			const done = await command(s.board.member, 'AttachToPage', { ...board(s), files });
			const [file] = done.result.files as string[];
			return [s.board.member, 'RemovePageFile', { ...board(s), file }];
		},
		TickLine: async (s) => [s.board.member, 'TickLine', { card: s.lined, line: await lineOn(s), done: true }],
		LineToCard: async (s) => {
			const line = await lineOn(s);
			return [s.board.member, 'LineToCard', { ...(await now(s, s.lined)), line }];
		},
		CopyCards: async (s) => {
			await attached(s);
			return [
				s.board.member,
				'CopyCards',
				{ ...board(s), cards: [await now(s, s.lined)], with: ['description', 'size', 'files'] },
			];
		},
		DoTogether: (s) => [
			s.board.member,
			'DoTogether',
			{
				...board(s),
				steps: [
					{ command: 'SizeCard', input: { ...asSeen(s, s.lined), size: 9 } },
					{ command: 'MoveCard', input: { ...asSeen(s, s.lined), column: s.board.columns.Check } },
					{ command: 'DateCard', input: { ...asSeen(s, s.loose), due: '2026-12-11' } },
				],
			},
		],
		ArchiveCards: (s) => [
			s.board.member,
			'ArchiveCards',
			{ ...board(s), cards: [s.lined, s.loose].map((id) => asSeen(s, id)), reason: 'No longer' },
		],
		MoveCards: async (s) => [
			s.board.member,
			'MoveCards',
			{ ...board(s), cards: [s.lined, s.loose].map((id) => asSeen(s, id)), column: s.board.columns.Check },
		],
		AddLane: (s) => [s.board.lead, 'AddLane', { ...board(s), name: 'Storm damage', class: 'expedite' }],
		ChangeLane: async (s) => {
			const [lane, other] = await lanes(s);
			await command(s.board.member, 'ChangeCards', {
				...board(s),
				cards: [asSeen(s, s.lined)],
				lane,
			});
			return [
				s.board.lead,
				'ChangeLane',
				{ ...board(s), lane: other, name: 'South', limit: 2, mode: 'hold', place: 0, retired: true },
			];
		},
		ChangeInitiative: async (s) => [
			s.board.lead,
			'ChangeInitiative',
			{ ...board(s), initiative: await initiative(s), target: '2026-12-18', lead: s.board.member.id },
		],
		AddColumn: (s) => [
			s.board.lead,
			'AddColumn',
			{ ...board(s), name: 'Tried out', kind: 'work', after: s.board.columns.Making },
		],
		PlaceColumn: (s) => [
			s.board.lead,
			'PlaceColumn',
			{ column: s.board.columns.Check, version: s.column, after: null },
		],
		RetireColumn: async (s) => {
			// Its card goes elsewhere, and comes back.
			await command(s.board.member, 'MoveCard', { ...asSeen(s, s.lined), column: s.board.columns.Check });
			return [
				s.board.lead,
				'RetireColumn',
				{ column: s.board.columns.Check, version: s.column, to: s.board.columns.Ready },
			];
		},
		MoveClock: (s) => [s.board.lead, 'MoveClock', { ...board(s), column: s.board.columns.Ready }],
		ChangeAskPage: (s) => [
			s.board.lead,
			'ChangeAskPage',
			{
				...board(s),
				page: { words: 'Say where', fields: ['due'], column: s.board.columns.Ready, top: false },
			},
		],
		ChangeBoard: (s) => [
			s.board.lead,
			'ChangeBoard',
			{
				...board(s),
				name: `Other than ${s.board.key}`,
				key: `${s.board.key}X`,
				purpose: 'For trying out',
				visibleTo: 'named',
				changedBy: 'named',
				people: [{ person: s.board.member.id, changes: true }],
				off: ['dates'],
				lineStates: ['needed', 'here'],
				personLimit: 3,
				personMode: 'hold',
				away: true,
			},
		],
		ChangeTeam: (s) => [
			s.board.lead,
			'ChangeTeam',
			{ team: s.board.team, name: 'Others', timeZone: 'Asia/Tokyo', stages: ['Asked', 'Agreed'], away: true },
		],
		ChangeMember: (s) => [s.board.lead, 'ChangeMember', { ...team(s), role: 'viewer', title: 'Rigger' }],
		ChangeCadence: (s) => [s.board.lead, 'ChangeCadence', { ...board(s), days: 7, weekday: 3, name: 'Week' }],
		ChangeSprint: (s) => [
			s.board.lead,
			'ChangeSprint',
			{
				...board(s),
				sprint: 2,
				version: s.sprint.two,
				goal: 'Other',
				starts: '2026-12-08',
				ends: '2026-12-18',
			},
		],
		DismissFinding: (s) => [
			s.board.member,
			'DismissFinding',
			{ ...board(s), finding: 'quiet:1', reason: 'Known' },
		],
		RecallFinding: async (s) => {
			await command(s.board.member, 'DismissFinding', { ...board(s), finding: 'quiet:1', reason: 'Known' });
			return [s.board.member, 'RecallFinding', { ...board(s), finding: 'quiet:1' }];
		},
		AddCard: (s) => [s.board.member, 'AddCard', { ...board(s), column: s.board.columns.Ready, title: 'New' }],
		AddCards: (s) => [
			s.board.member,
			'AddCards',
			{ ...board(s), cards: [{ title: 'New', labels: ['night'], owners: [s.board.member.id], size: 3 }] },
		],
		ArchiveCard: (s) => [s.board.member, 'ArchiveCard', { ...asSeen(s, s.lined), reason: 'No' }],
		RestoreCard: async (s) => {
			await command(s.board.member, 'ArchiveCard', { ...asSeen(s, s.lined), reason: 'No' });
			return [s.board.member, 'RestoreCard', await now(s, s.lined)];
		},
		AssignCard: (s) => [s.board.member, 'AssignCard', { ...asSeen(s, s.lined), owners: [s.board.lead.id] }],
		BlockCard: (s) => [s.board.member, 'BlockCard', { ...asSeen(s, s.lined), reason: 'Part' }],
		UnblockCard: async (s) => {
			await command(s.board.member, 'BlockCard', { ...asSeen(s, s.lined), reason: 'Part' });
			return [s.board.member, 'UnblockCard', await now(s, s.lined)];
		},
		WaitFor: async (s) => {
			await command(s.board.member, 'BlockCard', { ...asSeen(s, s.lined), reason: 'Part' });
			return [s.board.member, 'WaitFor', { ...(await now(s, s.lined)), waitingFor: 'the boat' }];
		},
		ChangeCards: async (s) => {
			await command(s.board.lead, 'ChangeType', { ...board(s), name: 'Repair', checklist: [] });
			return [
				s.board.member,
				'ChangeCards',
				{
					...board(s),
					cards: [s.lined, s.loose].map((id) => asSeen(s, id)),
					label: ['night'],
					type: 'Repair',
					initiative: 'Winter',
					class: 'fixed',
					ready: true,
					owners: [s.board.lead.id],
				},
			];
		},
		ChecklistCard: (s) => [
			s.board.member,
			'ChecklistCard',
			{ ...asSeen(s, s.lined), lines: [{ text: 'Call', done: true }] },
		],
		ClassifyCard: (s) => [s.board.member, 'ClassifyCard', { ...asSeen(s, s.lined), class: 'expedite' }],
		CommentCard: (s) => [s.board.viewer, 'CommentCard', { card: s.lined, text: 'Said in haste' }],
		CorrectLeft: (s) => [s.board.member, 'CorrectLeft', { ...asSeen(s, s.lined), left: 4 }],
		DateCard: (s) => [s.board.member, 'DateCard', { ...asSeen(s, s.lined), due: '2026-12-04', start: TODAY }],
		DescribeCard: (s) => [s.board.member, 'DescribeCard', { ...asSeen(s, s.lined), description: 'Words' }],
		RenameCard: (s) => [s.board.member, 'RenameCard', { ...asSeen(s, s.lined), title: 'Other' }],
		SizeCard: (s) => [s.board.member, 'SizeCard', { ...asSeen(s, s.lined), size: 13 }],
		LinkCard: (s) => [s.board.member, 'LinkCard', { ...asSeen(s, s.lined), to: 1, kind: 'blocks' }],
		UnlinkCard: async (s) => {
			await command(s.board.member, 'LinkCard', { ...asSeen(s, s.lined), to: 1, kind: 'blocks' });
			return [s.board.member, 'UnlinkCard', { ...(await now(s, s.lined)), to: 1, kind: 'blocks' }];
		},
		MoveCard: async (s) => {
			// It starts there, over the limit.
			await db.query('update board_column set wip_limit = 1 where id = $1', [s.board.columns.Making]);
			return [
				s.board.member,
				'MoveCard',
				{
					...asSeen(s, s.lined),
					column: s.board.columns.Making,
					lane: (await lanes(s))[0],
					reason: 'Cannot wait',
				},
			];
		},
		NestCard: (s) => [s.board.member, 'NestCard', { ...asSeen(s, s.loose), parent: s.lined }],
		PlaceCards: (s) => [
			s.board.member,
			'PlaceCards',
			{ ...board(s), cards: [s.lined, s.loose].map((id) => asSeen(s, id)), below: null },
		],
		PlanCards: (s) => [
			s.board.member,
			'PlanCards',
			{ ...board(s), cards: [asSeen(s, s.loose)], sprint: 1, owners: [s.board.member.id] },
		],
		ReplenishBoard: (s) => [s.board.member, 'ReplenishBoard', { ...board(s), cards: [asSeen(s, s.loose)] }],
		ShareOut: (s) => [
			s.board.member,
			'ShareOut',
			{ ...board(s), cards: [{ ...asSeen(s, s.lined), owner: s.board.member.id }] },
		],
		SplitCard: (s) => [s.board.member, 'SplitCard', { ...asSeen(s, s.lined), title: 'Rest', part: 2 }],
		LogTime: (s) => [s.board.member, 'LogTime', { card: s.lined, day: TODAY, hours: 2 }],
		StopTimer: async (s) => {
			await at('2026-11-23T14:20:00Z', () => command(s.board.member, 'StartTimer', { card: s.lined }));
			return [s.board.member, 'StopTimer', { card: s.lined, hours: 1.5 }];
		},
		SettleSprint: (s) => [
			s.board.lead,
			'SettleSprint',
			{
				...board(s),
				sprint: 1,
				version: s.sprint.one,
				decisions: [
					{ ...asSeen(s, s.working), decision: 'split', reason: 'bigger', title: 'The rest' },
					{ ...asSeen(s, s.lined), decision: 'backlog', reason: 'not-started' },
				],
			},
		],
		StartSprint: async (s) => {
			await command(s.board.lead, 'SettleSprint', {
				...board(s),
				sprint: 1,
				version: s.sprint.one,
				decisions: [s.working, s.lined].map((id) => ({
					...asSeen(s, id),
					decision: 'carry',
					reason: 'bigger',
				})),
			});
			return [s.board.lead, 'StartSprint', { ...board(s), sprint: 2, version: s.sprint.two }];
		},
	};
};
