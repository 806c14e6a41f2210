<script lang="ts">
	import { goto } from '$app/navigation';
	import { untrack } from 'svelte';
	import { Input, Label, Select } from 'flowbite-svelte';
	import { keyFrom, type Template } from '$core/flow/set-up';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import Templates from '$lib/ui/make/Templates.svelte';
	import { send } from '$lib/ui/send';

	let { data } = $props();
	const taken = (key: string) => data.boards.some((board) => board.key === key);
	let name = $state('');
	/** Until somebody types one, the key follows the name. */
	let typed = $state<string | null>(null);
	const key = $derived(typed ?? (name.trim() ? keyFrom(name, taken) : ''));
	const first = untrack(() => data.templates[0]!);
	let chosen = $state(first.id);
	let unit = $state(first.setUp.unit);
	let sprints = $state(String(first.setUp.sprintDays ?? ''));
	let problem = $state('');
	let field = $state('');

	const UNITS = [
		{ value: 'hours', name: 'in hours' },
		{ value: 'points', name: 'in points' },
		{ value: 'none', name: 'not sized' },
	];
	const CADENCES = [
		{ value: '', name: 'it flows without sprints' },
		{ value: '7', name: 'sprints of a week' },
		{ value: '14', name: 'sprints of two weeks' },
		{ value: '21', name: 'sprints of three weeks' },
		{ value: '28', name: 'sprints of four weeks' },
	];
	function choose({ setUp }: Template) {
		unit = setUp.unit;
		sprints = String(setUp.sprintDays ?? '');
	}
	async function make(event: SubmitEvent) {
		event.preventDefault();
		const from = data.boards.some((board) => board.id === chosen);
		const sent = await send('MakeBoard', {
			team: data.team.id,
			name: name.trim(),
			key: key.trim(),
			...(from ? { from: chosen } : chosen ? { template: chosen } : {}),
			unit,
			sprintDays: sprints ? Number(sprints) : null,
		});
		if (sent.ok) return goto(`/boards/${sent.answer.result.slug}`);
		problem = sent.refusal.title;
		field = sent.refusal.field ?? '';
		document.getElementById(field === 'key' ? 'board-key' : 'board-name')?.focus();
	}
</script>

<TeamFrame person={data.person!} team={data.team} boards={data.boards} here="Team">
	<main>
		<h1>Make a board</h1>
		{#if data.team.role !== 'lead'}<p>Only a lead of the team makes boards.</p>{:else}
			<form onsubmit={make}>
				<div class="fields">
					<div class="wide">
						<Label for="board-name">What it is called</Label>
						<Input
							id="board-name"
							required
							maxlength={80}
							autocomplete="off"
							bind:value={name}
							aria-invalid={field === 'name'}
						/>
					</div>
					<div>
						<Label for="board-key">Its key: cards are {key || 'KEY'}-1, {key || 'KEY'}-2 …</Label>
						<Input
							id="board-key"
							required
							maxlength={10}
							autocomplete="off"
							value={key}
							aria-invalid={field === 'key'}
							oninput={(event: Event) => {
								const { value } = event.currentTarget as HTMLInputElement;
								typed = value.toUpperCase().replace(/[^A-Z0-9]/g, '') || null;
							}}
						/>
					</div>
					<div>
						<Label for="board-unit">Cards are sized</Label>
						<Select id="board-unit" placeholder="" items={UNITS} bind:value={unit} />
					</div>
					<div>
						<Label for="board-sprints">Work goes in</Label>
						<Select id="board-sprints" placeholder="" items={CADENCES} bind:value={sprints} />
					</div>
				</div>
				<Templates templates={data.templates} bind:chosen onchoose={choose} />
				<div class="foot">
					<p class="warn" role="alert">{problem}</p>
					<button class="go">Make the board</button>
				</div>
			</form>
		{/if}
	</main>
</TeamFrame>

<style>
	main {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 12px 20px 0;
	}
	h1 {
		font-size: 1.4rem;
		margin-bottom: 8px;
	}
	form {
		max-width: 1100px;
	}
	.fields {
		display: grid;
		grid-template-columns: 2fr 1.4fr 1fr 1.3fr;
		gap: 12px 18px;
		align-items: end;
		margin-bottom: 14px;
	}
	.foot {
		position: sticky;
		bottom: 0;
		display: flex;
		gap: 16px;
		align-items: center;
		justify-content: flex-end;
		padding: 12px 0;
		margin-top: 16px;
		background: var(--paper);
		border-top: 1px solid var(--rule);
	}
	.foot p {
		margin: 0;
		flex: 1;
	}
	@media (max-width: 900px) {
		.fields {
			grid-template-columns: 1fr 1fr;
		}
	}
	@media (max-width: 560px) {
		.fields {
			grid-template-columns: 1fr;
		}
		main {
			padding: 10px 14px 0;
		}
	}
</style>
