<script lang="ts">
	import { Select } from 'flowbite-svelte';
	import type { Unit } from '$core/pages/board';
	import type { Head, Mapping, TableCard } from '$core/exchange/card-file';
	import { amount, count } from '../words';
	import { handOver } from '../hand-over';
	import Dialog from './Dialog.svelte';

	interface Preview {
		header: string[];
		/** What its columns can hold. */
		heads: Head[];
		mapping: Mapping;
		cards: TableCard[];
		errors: { line: number; reason: string }[];
		/** The lines that cannot be read, as a table of their own. */
		bad: string;
	}
	interface Props {
		slug: string;
		unit: Unit;
		onadd: (cards: TableCard[]) => void;
		onclose: () => void;
	}
	let { slug, unit, onadd, onclose }: Props = $props();

	const MOST_BYTES = 1_000_000;
	let file = $state('');
	let name = $state('');
	let preview = $state.raw<Preview | null>(null);
	let problem = $state('');
	let reading = $state(false);
	/** Which column holds what, as it was chosen last: answers to earlier choices are passed over. */
	let mapping = $state.raw<Mapping>({});
	let asked = 0;

	const wrongLines = $derived(new Set(preview?.errors.map((error) => error.line)).size);
	const handBack = () =>
		handOver(`${name.replace(/\.\w+$/, '')}-to-mend.csv`, 'text/csv;charset=utf-8', preview!.bad);

	async function choose(input: HTMLInputElement) {
		const chosen = input.files?.[0];
		preview = null;
		problem = '';
		if (!chosen) return;
		name = chosen.name;
		if (chosen.size > MOST_BYTES) {
			problem = `${name} has ${Math.round(chosen.size / 100_000) / 10} MB. A file of cards may have at most 1 MB; split it.`;
			return;
		}
		file = await chosen.text();
		await look(null);
	}

	async function look(chosen: Mapping | null) {
		const mine = ++asked;
		reading = true;
		try {
			const response = await fetch(`/api/boards/${slug}/table`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ file, mapping: chosen }),
			});
			const answer = await response.json();
			if (mine !== asked) return;
			problem = response.ok ? '' : answer.title;
			if (response.ok) preview = answer;
			if (response.ok && !chosen) mapping = answer.mapping;
		} catch {
			problem = 'Not connected: the file was not read. Nothing was made; try again.';
		}
		reading = false;
	}
	function map(field: string, value: string) {
		const { [field]: _before, ...others } = mapping;
		mapping = value === '' ? others : { ...others, [field]: Number(value) };
		void look(mapping);
	}
</script>

<Dialog title="Read cards from a table" wide {onclose}>
	<label class="file"
		>A CSV file, its first line naming the columns
		<input
			type="file"
			accept=".csv,.tsv,.txt,text/csv"
			onchange={(event) => void choose(event.currentTarget)}
		/></label
	>
	<p class="warn" role="alert">{problem}</p>
	{#if reading}<p role="status">Reading {name}…</p>{/if}
	{#if preview}
		<div class="two">
			<div class="fields">
				<h3>Which column holds what</h3>
				{#each preview.heads as { id: field, name: words } (field)}
					<label for="map-{field}">{words}</label>
					<Select
						id="map-{field}"
						placeholder=""
						classes={{ select: 'py-1 px-2 text-base' }}
						value={String(mapping[field] ?? '')}
						items={[
							{ value: '', name: field === 'title' ? 'choose one' : 'none' },
							...preview.header.map((column, i) => ({ value: String(i), name: column || `column ${i + 1}` })),
						]}
						onchange={(event: Event) => map(field, (event.currentTarget as HTMLSelectElement).value)}
					/>
				{/each}
			</div>
			<div>
				<h3>
					{preview.errors.length
						? `${count(wrongLines, 'line')} cannot be read; ${count(preview.cards.length, 'card')} could be made of the others`
						: `${count(preview.cards.length, 'card')} would be made`}
				</h3>
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<ul tabindex="0" aria-label="What the file holds">
					{#each preview.errors.slice(0, 200) as error, i (i)}<li class="error">
							Line {error.line}: {error.reason}.
						</li>
					{:else}{#each preview.cards.slice(0, 200) as card (card.line)}<li
								class:part={card.parent !== undefined}
							>
								<span>{card.title}</span>{#if card.size !== undefined}<b>{amount(card.size, unit)}</b>{/if}
								<small
									>{[card.type, ...(card.labels ?? []), card.initiative, card.due]
										.filter(Boolean)
										.join(' · ')}</small
								>
							</li>{/each}{/each}
				</ul>
				{#if Math.max(preview.errors.length, preview.cards.length) > 200}<p class="soft">
						The first 200 are shown.
					</p>{/if}
			</div>
		</div>
	{/if}
	{#if preview?.errors.length && wrongLines}<p>
			<button type="button" class="link" onclick={handBack}
				>Save the {count(wrongLines, 'line')} with what is wrong</button
			>
			as a table of their own: mended, it can be read like any other.
		</p>{/if}
	<div class="dialog-foot">
		<button type="button" class="plain" onclick={onclose}>Leave it</button>
		<button
			type="button"
			class="go"
			disabled={!preview?.cards.length || reading}
			onclick={() => onadd(preview!.cards)}
			>Make {preview?.cards.length
				? `${preview.errors.length ? 'only the ' : ''}${count(preview.cards.length, 'card')}`
				: 'them'}</button
		>
	</div>
</Dialog>

<style>
	.file {
		display: grid;
		gap: 6px;
	}
	.two {
		display: grid;
		grid-template-columns: 280px 1fr;
		gap: 18px;
	}
	.fields {
		display: grid;
		grid-template-columns: 90px 1fr;
		gap: 4px 8px;
		align-items: center;
		align-content: start;
	}
	h3 {
		font: 600 1rem var(--text);
		grid-column: 1 / -1;
		margin: 6px 0;
	}
	ul {
		max-height: 380px;
		overflow-y: auto;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 8px;
		padding: 3px 0;
		border-bottom: 1px dotted var(--rule);
		overflow-wrap: anywhere;
	}
	.part {
		padding-left: 20px;
	}
	.error {
		color: var(--brick);
	}
	small {
		color: var(--soft);
	}
	p {
		margin: 6px 0 0;
	}
	@media (max-width: 700px) {
		.two {
			grid-template-columns: 1fr;
		}
	}
</style>
