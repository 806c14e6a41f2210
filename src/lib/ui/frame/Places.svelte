<script lang="ts">
	import { page } from '$app/state';
	import type { Snippet } from 'svelte';
	import type { BoardPlaces } from '$core/pages/board';
	import PlaceLine from './PlaceLine.svelte';

	interface Props {
		board: BoardPlaces;
		here:
			| 'rounds'
			| 'board'
			| 'backlog'
			| 'plan'
			| 'settle'
			| 'look-back'
			| 'flow'
			| 'people'
			| 'panorama'
			| 'timesheet'
			| 'account'
			| 'team'
			| 'about'
			| 'archive'
			| 'set-up';
		children?: Snippet;
	}
	let { board, here, children }: Props = $props();
	/** The team's own pages are for those who are in it. */
	const inTeam = $derived(board.people.some((one) => one.id === page.data.person?.id && !one.gone));
	const to = $derived(`/boards/${board.slug}`);
	const places = $derived([
		{ name: 'Rounds', id: 'rounds', to: `${to}/rounds` },
		{ name: 'Board', id: 'board', to },
		{ name: 'Backlog', id: 'backlog', to: `${to}/backlog` },
		...(board.sprintDays === null
			? [{ name: 'Look back', id: 'look-back', to: `${to}/retrospectives` }]
			: [
					{ name: 'Plan', id: 'plan', to: `${to}/plan` },
					{ name: 'Settle', id: 'settle', to: `${to}/settle` },
					{ name: 'Look back', id: 'look-back', to: `${to}/look-back` },
				]),
		{ name: 'Flow', id: 'flow', to: `${to}/flow` },
		...(inTeam
			? [
					{ name: 'People', id: 'people', to: `/teams/${board.teamId}/people?from=${board.slug}` },
					{ name: 'Panorama', id: 'panorama', to: `/teams/${board.teamId}/panorama?from=${board.slug}` },
					...(board.off.includes('hours')
						? []
						: [
								{
									name: 'Timesheet',
									id: 'timesheet',
									to: `/teams/${board.teamId}/timesheet?from=${board.slug}`,
								},
							]),
					{ name: 'Account', id: 'account', to: `/teams/${board.teamId}/account?from=${board.slug}` },
				]
			: []),
		{ name: 'About', id: 'about', to: `${to}/about` },
		...(here === 'archive' ? [{ name: 'Archive', id: 'archive', to: `${to}/archive` }] : []),
		...(board.role === 'lead' ? [{ name: 'Set-up', id: 'set-up', to: `${to}/set-up` }] : []),
	]);
</script>

<PlaceLine
	label="Places of this board"
	ribbon={!page.url.pathname.startsWith('/teams/')}
	places={places.map(({ name, id, to: at }) => ({ name, to: at, here: id === here }))}
	{children}
/>
