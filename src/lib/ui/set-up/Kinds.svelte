<script lang="ts">
	import { Input, Label, Textarea } from 'flowbite-svelte';
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import { count } from '../words';
	import Names from './Names.svelte';
	import { namesOf } from './names';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	let typeName = $state('');
	let typeLines = $state('');
	let problem = $state('');

	async function type(event: SubmitEvent) {
		event.preventDefault();
		const lines = typeLines
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean);
		problem = typeName.trim() ? '' : 'A type needs a name.';
		if (problem) return;
		const sent = await board.ask('ChangeType', { board: head.id, name: typeName.trim(), checklist: lines });
		if (!sent.ok) return void (problem = sent.refusal.title);
		board.tell({
			tone: 'done',
			text: `Cards of the type ${typeName.trim()} begin with ${count(lines.length, 'checklist line')}.`,
		});
		[typeName, typeLines] = ['', ''];
	}
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-types">
	<h2 id="set-types">Kinds of card</h2>
	<Names
		kind="type"
		names={head.types.map((one) => one.name)}
		retired={setUp.retired.type}
		carried={setUp.carried.type}
		says={(name) => {
			const lines = head.types.find((one) => one.name === name)?.checklist ?? [];
			return lines.length ? `begins with: ${lines.join('; ')}` : 'begins with no checklist';
		}}
		onmore={(name) => {
			const lines = head.types.find((one) => one.name === name)?.checklist ?? [];
			[typeName, typeLines] = [name, lines.join('\n')];
		}}
		mayChange={lead}
		onchange={namesOf(board, 'type')}
	/>
	{#if lead}
		<form onsubmit={type}>
			<div>
				<Label for="type-name">Name</Label><Input id="type-name" bind:value={typeName} maxlength={40} />
			</div>
			<div>
				<Label for="type-lines">Its checklist, a line each</Label>
				<Textarea id="type-lines" bind:value={typeLines} rows={4} class="w-full text-base" />
			</div>
			<button class="plain">Keep the type</button>
		</form>
	{/if}
</section>
