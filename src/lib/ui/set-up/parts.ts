/** The parts of Set-up, in their order; find-or-do leads to each. */
export const PARTS = [
	{
		id: 'board',
		name: 'Board',
		words: 'Set up the board: name, key, who sees it, what it uses, template, put away',
	},
	{ id: 'columns', name: 'Columns', words: 'Set up columns, slots, policies and the clock' },
	{ id: 'lanes', name: 'Lanes', words: 'Set up lanes (swimlanes), their slots and classes' },
	{
		id: 'kinds',
		name: 'Kinds of card',
		words: 'Set up kinds (types) of card: checklist, first size and class',
	},
	{ id: 'labels', name: 'Labels', words: 'Set up labels' },
	{ id: 'initiatives', name: 'Initiatives', words: 'Set up initiatives: targets, budgets, who leads them' },
	{ id: 'fields', name: 'Fields', words: 'Set up fields of the board’s own' },
	{ id: 'ask', name: 'Ask page', words: 'Set up the ask page, on which anyone signed in asks for a card' },
	{ id: 'sprints', name: 'Sprints', words: 'Set up the cadence of sprints and how they are settled' },
	{ id: 'changes', name: 'What was changed', words: 'See what was changed in Set-up lately' },
] as const;
