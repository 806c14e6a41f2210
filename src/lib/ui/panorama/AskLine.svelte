<script lang="ts">
	import type { PanoramaPage, TeamConditions } from '$core/pages/panorama';
	import { withCondition, type Condition } from '$core/board/filter';
	import type { Offered } from '$core/pages/board';
	import { type Asked } from '$core/panorama/asked';
	import { togetherWords } from '$core/panorama/conditions';
	import Conditions from '../board/Conditions.svelte';
	import { ask } from '../send';
	import { wholeNames } from '../words';

	interface Props {
		page: PanoramaPage;
		asked: Asked;
		onask: (change: Partial<Asked>) => void;
	}
	/** What is looked at, as one sentence of choices. */
	let { page, asked, onask }: Props = $props();
	const AS = { timeline: 'a timeline', kinds: 'boards by kind of column', stages: 'initiatives by stage' };
	const OF = { initiatives: 'initiatives', boards: 'boards', people: 'people', classes: 'classes' };
	const BY = { days: 'days', weeks: 'weeks', months: 'months' };
	const called = $derived(wholeNames(page.people));
	const of = (event: Event) => (event.currentTarget as HTMLSelectElement).value;

	/** What cards can be narrowed by, once somebody wants to. */
	let offered = $state.raw<Offered[]>([]);
	let failed = $state(false);
	async function look(): Promise<void> {
		if (offered.length) return;
		const found = await ask<TeamConditions>(`/api/teams/${page.team.id}/conditions`);
		failed = !found.ok;
		if (found.ok) offered = found.answer.offered;
	}
	/** The page says each condition in words; one that it has not heard of yet is said by what is offered. */
	const words = (condition: Condition) =>
		(!offered.length && page.narrowed?.words[asked.where.indexOf(condition)]) ||
		togetherWords(offered, condition);
</script>

<div class="ask">
	As <select
		class="choice"
		aria-label="Looked at as"
		value={asked.as}
		onchange={(event) => onask({ as: of(event) as Asked['as'] })}
		>{#each Object.entries(AS) as [id, name] (id)}<option value={id}>{name}</option>{/each}</select
	>{#if asked.as === 'timeline'}<span class="of">of</span>
		<select
			class="choice"
			aria-label="Rows by"
			value={asked.of}
			onchange={(event) => onask({ of: of(event) as Asked['of'] })}
			>{#each Object.entries(OF) as [id, name] (id)}<option value={id}>{name}</option>{/each}</select
		>, by
		<select
			class="choice"
			aria-label="Time by"
			value={asked.by}
			onchange={(event) => onask({ by: of(event) as Asked['by'] })}
			>{#each Object.entries(BY) as [id, name] (id)}<option value={id}>{name}</option>{/each}</select
		>{/if}, showing
	<select
		class="choice"
		aria-label="Boards"
		value={asked.boards.length === 1 ? asked.boards[0] : asked.boards.length ? 'several' : ''}
		onchange={(event) => onask({ boards: of(event) ? [of(event)] : [] })}
		><option value="">all boards</option>{#if asked.boards.length > 1}<option value="several" disabled
				>{asked.boards.length} boards</option
			>{/if}{#each page.boards as { slug, name } (slug)}<option value={slug}>{name}</option>{/each}</select
	>, of
	<select class="choice" aria-label="Whose" value={asked.who} onchange={(event) => onask({ who: of(event) })}
		><option value="">everyone</option>{#each page.people.filter((one) => !one.gone) as { id } (id)}<option
				value={id}>{called(id)}</option
			>{/each}</select
	>{#if asked.as !== 'kinds'},
		<label
			><input
				type="checkbox"
				checked={asked.late}
				onchange={(event) => onask({ late: event.currentTarget.checked })}
			/> late only</label
		>{/if}
	<input
		class="words"
		type="search"
		aria-label="With these words"
		placeholder="with these words"
		value={asked.q}
		onchange={(event) => onask({ q: event.currentTarget.value.trim() })}
	/>
	{#each asked.where as condition, i (i)}
		<button
			type="button"
			class="link"
			title="Let it go"
			aria-label="Let go: {words(condition)}"
			onclick={() => onask(withCondition(asked, condition.field, []))}
			>{words(condition)} <span aria-hidden="true">×</span></button
		>
	{/each}
	<Conditions
		{offered}
		where={asked.where}
		{words}
		{failed}
		onopen={() => void look()}
		onwhere={(where) => onask({ where })}
	/>
</div>

<style>
	.ask {
		line-height: 1.9;
	}
	.of {
		margin-left: 0.3em;
	}
	label {
		white-space: nowrap;
		min-height: var(--touch, auto);
	}
	.words {
		width: 150px;
		border: 0;
		border-bottom: 1px solid var(--moss);
		background: none;
		color: var(--ink);
		font: inherit;
		padding: 2px 0;
		min-height: max(26px, var(--touch, 0px));
		box-shadow: none;
	}
	.words::placeholder {
		color: var(--faint);
		opacity: 1;
	}
</style>
