import {
	ArrayMaxSize,
	ArrayMinSize,
	IsArray,
	IsIn,
	IsInt,
	IsObject,
	IsUUID,
	Max,
	Min,
} from 'class-validator';
import { MOST_BEFORE, NOTICE_NAMES, WAYS, type NoticeChoices } from '../../../../core/notices/kinds.ts';
import { personCommand } from '../../door/command.ts';
import { Optional } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';

export class MarkNotices {
	/** Those that are meant; left out: all of one’s own. */
	@Optional()
	@IsUUID('all', { each: true, message: 'Each notice is named by its id.' })
	@ArrayMaxSize(1000, { message: 'At most 1,000 notices can be named at once.' })
	@IsArray({ message: 'Which notices are meant is a list of their ids.' })
	notices?: string[];

	@IsIn(['read', 'unread', 'away', 'back'], {
		message: 'Notices are marked as read, unread, away or back.',
	})
	as!: 'read' | 'unread' | 'away' | 'back';
}

/** What marking does to notices; what was unread before and has been followed by another one since stays read. */
const MARKS = {
	read: 'read_at = coalesce(read_at, $3)',
	unread: 'read_at = null',
	away: 'read_at = coalesce(read_at, $3), away_at = coalesce(away_at, $3)',
	back: 'away_at = null',
};

export const markNotices = personCommand({
	name: 'MarkNotices',
	summary: 'Marks notices of one’s own as read or unread, puts them away or brings them back.',
	input: MarkNotices,
	async run({ tx, person, at }, input) {
		const { rowCount } = await tx.query(
			`update notice n set ${MARKS[input.as]}
			where n.person_id = $1 and ($2::uuid[] is null or n.id = any($2))
				and ($3::timestamptz is not null)
				${
					input.as === 'unread'
						? `and (n.asks or not exists (
							select from notice o
							where o.person_id = n.person_id and o.board_id = n.board_id and o.card_id is not distinct from n.card_id
								and not o.asks and o.away_at is null and o.id <> n.id and (o.read_at is null or (o.at, o.id) > (n.at, n.id))
								and ($2::uuid[] is null or o.read_at is null or o.id = any($2))
						))`
						: ''
				}`,
			[person.id, input.notices ?? null, at],
		);
		await tx.query(`select pg_notify('harrow', 'notice ' || $1)`, [person.id]);
		return { result: { notices: rowCount ?? 0 } };
	},
});

export class ChooseNotices {
	/** Of kinds of notices: `harrow` to be told in Harrow, `mail` and `digest` by mail besides, at once or once a day, `none` not to be told. Those left out are told as to everyone. */
	@Optional()
	@IsObject({ message: 'The kinds are an object of kinds of notices and ways.' })
	kinds?: NoticeChoices['kinds'];

	/** The same for boards by their ids, where they differ; `all` is every kind that is not named. */
	@Optional()
	@IsObject({ message: 'The boards are an object of boards and what is chosen for each.' })
	boards?: NoticeChoices['boards'];

	/** So many working days before it is due one is told of a card of one’s own, or of a review. */
	@Optional()
	@Max(MOST_BEFORE, { message: `One is told at most ${MOST_BEFORE} working days before.` })
	@Min(0, { message: 'The working days before are 0 or more.' })
	@IsInt({ message: 'The working days before are a whole number.' })
	before?: number;

	/** At which hour, where one is, the daily digest comes. */
	@Optional()
	@Max(23, { message: 'The hour of the digest is from 0 to 23.' })
	@Min(0, { message: 'The hour of the digest is from 0 to 23.' })
	@IsInt({ message: 'The hour of the digest is a whole number.' })
	digest?: number;

	/** From which hour to which, where one is, no mail comes at once; what would have come comes then. */
	@Optional()
	@Max(23, { each: true, message: 'Quiet hours are two hours from 0 to 23.' })
	@Min(0, { each: true, message: 'Quiet hours are two hours from 0 to 23.' })
	@IsInt({ each: true, message: 'Quiet hours are two whole hours.' })
	@ArrayMaxSize(2, { message: 'Quiet hours are two hours, from and to.' })
	@ArrayMinSize(2, { message: 'Quiet hours are two hours, from and to.' })
	@IsArray({ message: 'Quiet hours are a list of two hours, from and to.' })
	quiet?: [number, number];
}

const KEPT = ['before', 'digest', 'quiet'] as const;

export const chooseNotices = personCommand({
	name: 'ChooseNotices',
	summary: 'Says of what oneself wants to be told and how, in the place of what was chosen before.',
	input: ChooseNotices,
	async run({ tx, person }, input) {
		check(input.kinds ?? {}, NOTICE_NAMES, 'kinds');
		const boards = Object.entries(input.boards ?? {});
		for (const [, chosen] of boards) check(chosen, [...NOTICE_NAMES, 'all'], 'boards');
		const { rows } = await tx.query<{ id: string }>(
			'select board_id as id from board_right where person_id = $1 and board_id::text = any($2)',
			[person.id, boards.map(([id]) => id)],
		);
		const kept = (
			await tx.query<{ boards: object | null }>(
				`select notices -> 'boards' as boards from person where id = $1`,
				[person.id],
			)
		).rows[0]!.boards;
		// What was chosen for a board that one may not see any more harms nobody.
		if (boards.some(([id]) => !rows.some((row) => row.id === id) && !Object.hasOwn(kept ?? {}, id)))
			throw new Problem(422, 'board.unknown', 'There is no such board, or you may not see it.', 'boards');
		await tx.query('update person set notices = $2 where id = $1', [
			person.id,
			JSON.stringify({
				kinds: input.kinds ?? {},
				boards: input.boards ?? {},
				...Object.fromEntries(KEPT.flatMap((key) => (input[key] === undefined ? [] : [[key, input[key]]]))),
			}),
		]);
	},
});

function check(chosen: unknown, kinds: readonly string[], field: string): void {
	const whole =
		typeof chosen === 'object' &&
		chosen !== null &&
		Object.entries(chosen).every(
			([kind, way]) => kinds.includes(kind) && (WAYS as readonly unknown[]).includes(way),
		);
	if (!whole)
		throw new Problem(
			422,
			`invalid.${field}`,
			`What is chosen names kinds of notices, each with one of: ${WAYS.join(', ')}.`,
			field,
		);
}
