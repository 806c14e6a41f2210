import type { BoardSetUp, Template, TemplateColumn } from '../flow/set-up.ts';

/** Where cards wait. */
const waits = (name: string, limit: number | null, policy: string): TemplateColumn => ({
	name,
	kind: 'queue',
	limit,
	mode: 'advise',
	policy,
});
/** Where they are worked on; one more than the slots is held until a reason is given. */
const works = (name: string, limit: number | null, policy: string): TemplateColumn => ({
	name,
	kind: 'work',
	limit,
	mode: 'hold',
	policy,
});
const done = (name: string, policy = ''): TemplateColumn => ({
	name,
	kind: 'done',
	limit: null,
	mode: 'advise',
	policy,
});

const setUp = (
	columns: TemplateColumn[],
	commitment: string,
	rest: Partial<BoardSetUp> = {},
): BoardSetUp => ({
	unit: 'hours',
	sprintDays: null,
	sprintWeekday: 0,
	sprintName: 'Sprint',
	columns,
	commitment,
	types: [],
	labels: [],
	off: [],
	...rest,
});

/** The board that has nothing but what every board needs. */
export const EMPTY: BoardSetUp = setUp(
	[waits('Next', null, ''), works('Working', null, ''), done('Done')],
	'Working',
);

/** The templates that ship with Harrow, each for a trade that works like that. */
export const TEMPLATES: readonly Template[] = [
	{
		id: 'sprint-delivery',
		name: 'Work delivered in sprints',
		sentence: 'Planned every two weeks against the hours that people have, and settled at the end.',
		setUp: setUp(
			[
				waits('Lined up', null, 'Sized, owned, and small enough for one sprint.'),
				works('Building', 4, 'One card a person; finish before you start.'),
				waits('Review', 3, 'Looked at within a day by somebody who did not build it.'),
				works('Trying out', 3, 'Tried where it will be used.'),
				done('Live', 'In use, and whoever asked for it knows.'),
			],
			'Building',
			{
				sprintDays: 14,
				types: [
					{ name: 'Work', checklist: ['Agreed how it is tried out', 'Tried out', 'Told to whoever asked'] },
					{ name: 'Repair', checklist: ['Cause written down', 'Same fault looked for elsewhere'] },
					{ name: 'Question', checklist: ['Answer written down where others find it'] },
				],
			},
		),
	},
	{
		id: 'continuous-flow',
		name: 'Work that flows without sprints',
		sentence: 'The next card is pulled when a slot is free; how long cards take is what is watched.',
		setUp: setUp(
			[
				waits('Ready', 5, 'Understood well enough to start today.'),
				works('Making', 4, 'Finish before you start.'),
				waits('To check', 2, 'Nothing waits here overnight.'),
				works('Checking', 2, 'By somebody who did not make it.'),
				done('Done'),
			],
			'Making',
			{
				types: [{ name: 'Work', checklist: [] }],
				lanes: [{ name: 'Urgent', class: 'expedite', limit: 1, mode: 'hold' }],
			},
		),
	},
	{
		id: 'support',
		name: 'Requests for help that come any time',
		sentence: 'Sorted on the day they come, urgent ones first, and answered before new ones are begun.',
		setUp: setUp(
			[
				waits('Came in', null, 'Looked at every morning: urgent ones are made Expedite.'),
				works('Looking into it', 3, 'Somebody has told the asker that we are on it.'),
				waits('Waits for the asker', null, 'Asked again after three working days.'),
				works('Putting right', 3, 'The cause is written on the card.'),
				done('Answered', 'The asker says it works.'),
			],
			'Looking into it',
			{
				unit: 'none',
				types: [
					{ name: 'Fault', checklist: ['Seen it happen', 'Cause written down', 'Asker told'] },
					{ name: 'Question', checklist: ['Answer kept for the next asker'] },
					{ name: 'Access', checklist: ['Leave given by', 'Day on which it ends'] },
				],
				labels: ['phone', 'mail', 'at the desk'],
				lanes: [{ name: 'Urgent', class: 'expedite', limit: 2, mode: 'hold' }],
				fields: [{ name: 'Asked by', kind: 'text', choices: [] }],
				off: ['hours'],
			},
		),
	},
	{
		id: 'purchases',
		name: 'Purchases and supplies',
		sentence: 'From wish to shelf, with a place where what cannot be had yet is parked in sight.',
		setUp: setUp(
			[
				waits('Wished for', null, 'Says what for, how many and by when.'),
				works('Offers', 4, 'Two offers above 500.'),
				waits('To be allowed', 6, 'Decided every Tuesday and Friday.'),
				works('Ordering', 4, 'Order number and day of delivery are on the card.'),
				waits('On its way', null, 'Looked at when its day of delivery has passed.'),
				waits('Parked', 8, 'Cannot be had or paid for now; looked through on the first of the month.'),
				done('On the shelf'),
			],
			'Offers',
			{
				unit: 'none',
				types: [
					{ name: 'Supplies', checklist: ['Counted what is left', 'Counted what came'] },
					{ name: 'Tool', checklist: ['Two offers', 'Inventory number'] },
					{ name: 'Service', checklist: ['Contract read', 'Notice period noted'] },
				],
				fields: [
					{ name: 'Supplier', kind: 'text', choices: [] },
					{ name: 'Amount', kind: 'number', choices: [] },
				],
				off: ['hours', 'classes'],
			},
		),
	},
	{
		id: 'approvals',
		name: 'Requests that somebody must approve',
		sentence: 'Checked for completeness, decided by one person and told to whoever asked.',
		setUp: setUp(
			[
				waits('Asked', null, 'Everything that is needed is on the card, or it goes back.'),
				works('Checking', 4, 'Complete, and within the rules.'),
				waits('To decide', 6, 'In the order in which they came, unless one has a fixed date.'),
				works('Deciding', 2, 'With the reason, in a sentence.'),
				done('Decided', 'The asker has been told.'),
			],
			'Checking',
			{
				unit: 'none',
				types: [
					{ name: 'Leave', checklist: ['Who stands in'] },
					{ name: 'Spending', checklist: ['Amount', 'From which budget'] },
					{ name: 'Change', checklist: ['What could go wrong', 'How it is taken back'] },
				],
				off: ['hours'],
			},
		),
	},
	{
		id: 'cases',
		name: 'Cases with stages, such as care or legal ones',
		sentence: 'Each case goes through its stages, has days that must be kept, and is closed with a review.',
		setUp: setUp(
			[
				waits('New', null, 'First contact within two working days.'),
				works('Finding out', 6, 'What is known, from whom, and what is missing.'),
				works('In progress', 8, 'The next step and its day are on the card.'),
				waits('Waits for others', null, 'Whom for, and asked again when.'),
				works('Closing', 4, 'Read by a second person.'),
				done('Closed'),
			],
			'Finding out',
			{
				types: [
					{
						name: 'Case',
						checklist: [
							'Consent on file',
							'First talk held',
							'Plan agreed',
							'Reviewed',
							'Closing letter sent',
						],
					},
					{ name: 'Deadline', checklist: ['Day checked by a second person', 'Sent', 'Receipt on file'] },
				],
				fields: [{ name: 'Case number', kind: 'text', choices: [] }],
				labels: ['urgent contact', 'translator', 'home visit'],
			},
		),
	},
	{
		id: 'field-work',
		name: 'Work on site, with parts to bring',
		sentence: 'Nobody drives out before the parts are there, and what was found comes back with them.',
		setUp: setUp(
			[
				waits('Reported', null, 'Where, what, and who opens the door.'),
				works('Preparing', 6, 'Parts listed and ordered, day agreed.'),
				waits('Ready to go', 8, 'All parts in the van or on site.'),
				works('On site', 3, 'One site at a time for each crew.'),
				works('Writing up', 4, 'Within a day, with pictures.'),
				done('Handed over', 'Signed for by whoever reported it.'),
			],
			'Preparing',
			{
				sprintDays: 7,
				sprintName: 'Week',
				types: [
					{ name: 'Repair', checklist: ['Parts listed', 'Parts here', 'Tried out on site', 'Signed for'] },
					{ name: 'Service', checklist: ['Worn parts listed', 'Readings noted', 'Next service set'] },
					{ name: 'Survey', checklist: ['Measured', 'Pictures', 'Offer written'] },
				],
				fields: [{ name: 'Parts to bring', kind: 'text', choices: [] }],
				labels: ['ladder', 'two people', 'key needed'],
			},
		),
	},
	{
		id: 'own-week',
		name: 'One person’s week',
		sentence: 'What one person means to do this week, with no more in hand than two hands hold.',
		setUp: setUp(
			[
				waits('This week', 10, 'Chosen on Monday; no more than a week holds.'),
				works('Today', 3, 'Chosen in the morning.'),
				waits('Waits for others', null, 'Whom for, and since when.'),
				done('Done'),
			],
			'Today',
			{ unit: 'hours', sprintDays: 7, sprintName: 'Week', off: ['lanes', 'types'] },
		),
	},
	{
		id: 'editorial',
		name: 'An editorial calendar',
		sentence:
			'From idea to print with a day on which it appears, and eyes other than the author’s before it.',
		setUp: setUp(
			[
				waits('Agreed', 8, 'Has an author, a length and a day.'),
				works('Writing', 5, 'One piece an author.'),
				waits('To edit', 4, 'Picked up within two working days.'),
				works('Editing', 2, 'Facts and names checked.'),
				works('Laying out', 2, 'With pictures and their rights.'),
				done('Published'),
			],
			'Writing',
			{
				unit: 'points',
				types: [
					{ name: 'Article', checklist: ['Sources noted', 'Names checked', 'Picture rights', 'Headline'] },
					{ name: 'Interview', checklist: ['Questions sent', 'Read back by the guest'] },
					{ name: 'Short piece', checklist: ['Fits on one screen'] },
				],
				fields: [
					{ name: 'Appears on', kind: 'date', choices: [] },
					{ name: 'Length', kind: 'choice', choices: ['short', 'a page', 'two pages'] },
				],
				labels: ['print', 'web', 'newsletter'],
				off: ['hours'],
			},
		),
	},
];
