import { PARTS } from '../set-up/parts';

interface Here {
	/** The board that is open, whether it has sprints, and whether one may set it up. */
	slug?: string;
	sprints: boolean;
	lead: boolean;
	/** The id of the team, for those who are in it. */
	team?: string;
	lenses: readonly { name: string; query: string }[];
}

/** Where one can go from a page, by its words. */
export function placesToGo({ slug, sprints, lead, team, lenses }: Here): { words: string; to: string }[] {
	return [
		...(slug
			? [
					...lenses.map(({ name, query }) => ({
						words: `Look through the lens ${name}`,
						to: `/boards/${slug}?${query}`,
					})),
					{ words: 'Go on the rounds', to: `/boards/${slug}/rounds` },
					{ words: 'Walk the board', to: `/boards/${slug}/rounds?walk` },
					{ words: 'Go to the board', to: `/boards/${slug}` },
					{ words: 'Go to the backlog', to: `/boards/${slug}/backlog` },
					...(sprints
						? [
								{ words: 'Plan the next sprint', to: `/boards/${slug}/plan` },
								{ words: 'Settle the sprint', to: `/boards/${slug}/settle` },
								{ words: 'Look back over the sprints', to: `/boards/${slug}/look-back` },
							]
						: []),
					{ words: 'Look through the archive', to: `/boards/${slug}/archive` },
					{ words: 'Go to flow', to: `/boards/${slug}/flow` },
					{ words: 'Read about the board: what it is for, policies, people', to: `/boards/${slug}/about` },
					...(lead
						? [
								{ words: 'Set-up', to: `/boards/${slug}/set-up` },
								...PARTS.filter(({ id }) => sprints || id !== 'sprints').map(({ id, words }) => ({
									words,
									to: `/boards/${slug}/set-up?part=${id}`,
								})),
							]
						: []),
				]
			: []),
		...(team
			? [
					{ words: 'Go to the team: members, invitations', to: `/teams/${team}` },
					{ words: 'Go to the people', to: `/teams/${team}/people` },
					{ words: 'See who is where, by day', to: `/teams/${team}/people/days` },
					{ words: 'Go to the panorama: several boards on a timeline', to: `/teams/${team}/panorama` },
					{ words: 'Look at initiatives by stage', to: `/teams/${team}/panorama?as=stages` },
					{ words: 'Go to the timesheet', to: `/teams/${team}/timesheet` },
					{ words: 'Go to the account', to: `/teams/${team}/account` },
				]
			: []),
		{ words: 'See all boards', to: '/' },
		{ words: 'Make a token', to: '/you' },
	];
}
