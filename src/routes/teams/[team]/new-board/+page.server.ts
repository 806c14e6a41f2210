import { EMPTY, TEMPLATES } from '$core/board/templates';
import type { Template } from '$core/flow/set-up';
import { forPage, whoAsks } from '$lib/server/answers';
import { teamOf } from '$lib/server/questions/team';
import { setUpOf, templatesOf } from '$lib/server/questions/templates';

export const load = async ({ locals, params }) => {
	const person = whoAsks(locals);
	const team = await forPage(teamOf(person, params.team));
	const [own, boards] = await Promise.all([
		forPage(templatesOf(person, team.id)),
		Promise.all(
			team.boards.map(async (board): Promise<Template[]> => {
				const setUp = await forPage(setUpOf(person, board.id));
				const sentence = `Columns, types, labels and the rest of ${board.name}; not its cards.`;
				return setUp ? [{ id: board.id, name: `As ${board.name} is set up`, sentence, setUp }] : [];
			}),
		),
	]);
	return {
		title: 'Make a board',
		team: { id: team.id, name: team.name, role: team.role },
		boards: team.boards.map(({ id, name, slug, key }) => ({ id, name, slug, key })),
		templates: [
			...own,
			...TEMPLATES,
			...boards.flat(),
			{ id: '', name: 'An empty one', sentence: 'No more than every board needs.', setUp: EMPTY },
		],
	};
};
