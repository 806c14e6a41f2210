<script lang="ts">
	import type { PanoramaPage } from '$core/pages/panorama';
	import type { Row } from '$core/panorama/rows';
	import { initiativeAddress } from '../initiative-words';
	import { calledAmong, count } from '../words';
	import { endWords, figuresOf, overWords } from './words';

	interface Props {
		page: PanoramaPage;
		row: Extract<Row, { kind: 'group' }>;
		/** Its place among the rows. */
		at: number;
		folded: boolean;
		tabbable: boolean;
		onfocus: () => void;
		onturn: () => void;
	}
	/** The name of a group of a timeline, which folds it; of an initiative also what it is. */
	let { page, row, at, folded, tabbable, onfocus, onturn }: Props = $props();
	const one = $derived(row.initiative);
	const called = $derived(calledAmong(page.people));
	const home = $derived(page.boards.find(({ id }) => id === one?.board));
	const words = $derived(
		one
			? [figuresOf(page, one), overWords(page, one), endWords(one, page.today)?.text ?? '']
					.filter(Boolean)
					.join(', ')
			: `${count(row.cards.length, 'card')} with a date`,
	);
</script>

<button
	type="button"
	data-row={at}
	tabindex={tabbable ? 0 : -1}
	aria-expanded={!folded}
	{onfocus}
	onclick={onturn}
	><span aria-hidden="true">{folded ? '▸' : '▾'}</span>
	{row.name}<span class="sr-only">, {words}</span></button
>
{#if one}<small
		>{one.parts.length > 1 ? count(one.parts.length, 'board') : (home?.name ?? '')}{one.lead
			? ` · ${called(one.lead)} leads`
			: ''}
		<a class="link" href={initiativeAddress(home?.slug ?? '', one.name)} aria-label="its page: {one.name}"
			>its page</a
		></small
	>{:else}<small class="of">{count(row.cards.length, 'card')}</small>{/if}

<style>
	button {
		display: block;
		max-width: 100%;
		border: 0;
		padding: 0;
		min-height: max(24px, var(--touch, 0px));
		background: none;
		color: var(--ink);
		font: 650 1rem var(--text);
		text-align: left;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	small {
		color: var(--soft);
		display: block;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	small.of {
		position: absolute;
		right: 8px;
		top: 10px;
		background: var(--paper);
	}
	.link {
		display: inline-block;
		min-width: 0;
		min-height: 24px;
		margin-left: 4px;
	}
	@media (max-width: 700px) {
		small.of {
			display: none;
		}
	}
</style>
