<script lang="ts">
	import { Input, Label, Select, Textarea } from 'flowbite-svelte';
	import { uses } from '$core/board/used';
	import type { CardType, ServiceClass } from '$core/pages/board';
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import { amount, list } from '../words';
	import { CLASSES, className } from '../classes';
	import Names from './Names.svelte';
	import { namesOf } from './names';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	let typeName = $state('');
	let typeLines = $state('');
	let typeSize = $state('');
	let typeClass = $state('');
	let problem = $state('');

	/** What cards of a kind begin with, in words. */
	function begins(type: CardType | undefined): string {
		const parts = [
			...(type?.size != null && head.unit !== 'none' ? [amount(type.size, head.unit)] : []),
			...(type?.class ? [`the class ${className(type.class)}`] : []),
			...(type?.checklist.length ? [`the lines ${type.checklist.join('; ')}`] : []),
		];
		return parts.length ? `begins with ${list(parts)}` : 'begins with nothing';
	}

	async function type(event: SubmitEvent) {
		event.preventDefault();
		const lines = typeLines
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean);
		const size = typeSize.trim() === '' ? null : Number(typeSize.replace(',', '.'));
		problem = !typeName.trim()
			? 'A kind of card needs a name.'
			: size !== null && !(size >= 0)
				? 'The first size is a number, or empty for none.'
				: '';
		if (problem) return;
		const sent = await board.ask('ChangeType', {
			board: head.id,
			name: typeName.trim(),
			checklist: lines,
			size,
			class: (typeClass || null) as ServiceClass | null,
		});
		if (!sent.ok) return void (problem = sent.refusal.title);
		board.tell({
			tone: 'done',
			text: `What cards of the kind ${typeName.trim()} begin with is kept.`,
		});
		[typeName, typeLines, typeSize, typeClass] = ['', '', '', ''];
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
		says={(name) => begins(head.types.find((one) => one.name === name))}
		onmore={(name) => {
			const type = head.types.find((one) => one.name === name);
			[typeName, typeLines] = [name, (type?.checklist ?? []).join('\n')];
			[typeSize, typeClass] = [String(type?.size ?? ''), type?.class ?? ''];
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
			{#if head.unit !== 'none'}<div>
					<Label for="type-size">Its first size, in {head.unit}; empty for not sized</Label>
					<Input id="type-size" inputmode="decimal" maxlength={7} bind:value={typeSize} />
				</div>{/if}
			{#if uses(head, 'classes')}<div>
					<Label for="type-class">Its first class</Label>
					<Select
						id="type-class"
						placeholder=""
						items={[
							{ value: '', name: 'Standard, as any card' },
							...CLASSES.filter((one) => one.value !== 'standard'),
						]}
						bind:value={typeClass}
					/>
				</div>{/if}
			<button class="plain">Keep the kind</button>
		</form>
	{/if}
</section>
