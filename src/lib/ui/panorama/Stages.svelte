<script lang="ts">
	import type { InitiativeFigures, PanoramaPage } from '$core/pages/panorama';
	import type { Asked } from '$core/panorama/asked';
	import { meantInitiatives, progressOf } from '$core/panorama/rows';
	import NameTag from '../board/NameTag.svelte';
	import { dragStages } from '../board/drag';
	import WorkBar from '../chart/WorkBar.svelte';
	import { initiativeAddress } from '../initiative-words';
	import SlotSteps from '../set-up/SlotSteps.svelte';
	import type { Doing } from '../team/doing.svelte';
	import { amount, count, dateWords } from '../words';
	import { endWords, figuresOf, overWords } from './words';

	let { page, asked, doing }: { page: PanoramaPage; asked: Asked; doing: Doing } = $props();
	const lead = $derived(page.role === 'lead');
	const meant = $derived(meantInitiatives(page, asked));
	/** The stages of the team, and before them what stands in none. */
	const columns = $derived([
		{ name: null, limit: null, said: 'In no stage yet' },
		...page.stages.map((stage) => ({ ...stage, said: stage.name })),
	]);
	const inStage = (stage: string | null) =>
		meant.filter((one) => (page.stages.some(({ name }) => name === one.stage) ? one.stage : null) === stage);
	const all = (stage: string | null) => page.initiatives.filter((one) => one.stage === stage).length;
	const homeOf = (one: InitiativeFigures) => page.boards.find(({ id }) => id === one.board);
	const mayMove = (one: InitiativeFigures) => lead || one.lead === page.me;

	/** One that goes to a stage that is full: why it is let through is asked. */
	let full = $state.raw<{ one: InitiativeFigures; stage: string; words: string } | null>(null);
	let reason = $state('');
	async function move(one: InitiativeFigures, stage: string | null, why?: string): Promise<void> {
		if (one.stage === stage || !mayMove(one)) return;
		const sent = await doing.ask(
			'StageInitiative',
			{ team: page.team.id, initiative: one.id, stage, ...(why ? { reason: why } : {}) },
			`${one.name} stands ${stage === null ? 'in no stage' : `in ${stage}`} now.`,
			(code) => code === 'stage.full',
		);
		if (sent.ok) {
			doing.spoken = `${one.name} stands ${stage ?? 'in no stage'}.`;
			full = null;
		} else if (sent.refusal.code === 'stage.full' && stage !== null) {
			full = { one, stage, words: sent.refusal.title };
			reason = '';
		}
	}
	function onkeydown(event: KeyboardEvent, one: InitiativeFigures): void {
		const items = [...document.querySelectorAll<HTMLElement>('[data-initiative]')];
		const here = items.findIndex((item) => item.dataset.initiative === one.id);
		const column = columns.findIndex(({ name }) => inStage(name).some(({ id }) => id === one.id));
		const side = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
		const step = { ArrowUp: -1, ArrowDown: 1 }[event.key];
		if (side && event.shiftKey) {
			const to = columns[column + side];
			if (to)
				void move(one, to.name).then(() =>
					document.querySelector<HTMLElement>(`[data-initiative="${one.id}"]`)?.focus(),
				);
		} else if (side) {
			const next = columns.slice(...(side > 0 ? [column + 1] : [0, column])) as typeof columns;
			const list = (side > 0 ? next : next.reverse())
				.map(({ name }) => inStage(name))
				.find((some) => some.length);
			document.querySelector<HTMLElement>(`[data-initiative="${list?.[0]?.id}"]`)?.focus();
		} else if (step) items[here + step]?.focus();
		else return;
		event.preventDefault();
	}

	let held = $state.raw<{ id: string; dx: number; dy: number; over: string | null } | null>(null);
	const dragging = (element: HTMLElement) => {
		let [x0, y0] = [0, 0];
		const stop = dragStages(element, {
			start: (id, _item, x, y) => {
				[x0, y0] = [x, y];
				held = { id, dx: 0, dy: 0, over: null };
			},
			move: (x, y) => {
				if (!held) return;
				const over =
					document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-stage]')?.dataset.stage ?? null;
				held = { ...held, dx: x - x0, dy: y - y0, over };
			},
			end: () => {
				const was = held;
				held = null;
				const one = was && meant.find(({ id }) => id === was.id);
				if (one && was.over !== null) void move(one, was.over === '' ? null : was.over);
			},
		});
		return () => void stop.then((end) => end());
	};

	let adding = $state('');
	let board = $state('');
	async function add(event: SubmitEvent) {
		event.preventDefault();
		const on = board || page.boards.find(({ role }) => role === 'lead')?.id;
		if (!on || !adding.trim()) return;
		const sent = await doing.ask(
			'AddInitiative',
			{ board: on, name: adding.trim(), stage: null },
			`${adding.trim()} was added.`,
		);
		if (sent.ok) adding = '';
	}
</script>

<div class="stages" {@attach dragging}>
	{#if !page.stages.length}
		<p class="none">
			The team has no stages yet.
			{#if lead}<a class="link" href="/teams/{page.team.id}#team-settings"
					>Name the stages that initiatives go through</a
				>.{:else}A lead can name them.{/if}
		</p>
	{/if}
	{#each columns as { name, limit, said } (said)}
		{@const list = inStage(name)}
		{@const n = name === null ? list.length : all(name)}
		{#if name !== null || list.length || lead}
			<section
				data-stage={name ?? ''}
				class:none={name === null}
				class:aim={held?.over === (name ?? '')}
				aria-label={said}
			>
				<h2>
					{said}
					<span class:warn={limit !== null && n > limit}>{limit === null ? n : `${n} of ${limit}`}</span>
				</h2>
				{#if name !== null && (lead || limit !== null)}<SlotSteps
						of={said}
						{limit}
						standing={n}
						mayChange={lead}
						onchange={(to) =>
							void doing.ask(
								'ChangeTeam',
								{ team: page.team.id, limits: [{ stage: name, limit: to }] },
								`${name} holds ${to === null ? 'any number of initiatives' : count(to, 'initiative')}.`,
							)}
					/>{/if}
				<ul>
					{#each list as one (one.id)}
						{@const end = endWords(one, page.today)}
						{@const over = overWords(page, one)}
						{@const share = progressOf(page, one)}
						<li
							data-card={mayMove(one) ? one.id : undefined}
							class:held={held?.id === one.id}
							style:transform={held?.id === one.id ? `translate(${held.dx}px, ${held.dy}px)` : undefined}
						>
							{#if mayMove(one)}<span class="grip" aria-hidden="true">⠿</span>{/if}
							<a
								href={initiativeAddress(homeOf(one)?.slug ?? '', one.name)}
								data-initiative={one.id}
								draggable="false"
								onkeydown={(event) => onkeydown(event, one)}>{one.name}</a
							>
							{#if one.lead}{@const person = page.people.find(
									({ id }) => id === one.lead,
								)}{#if person}<NameTag {person} seed={page.people.indexOf(person)} />{/if}{/if}
							<small>{homeOf(one)?.name}{one.wide ? ' and all boards' : ''}</small>
							{#if share !== null}<WorkBar worked={share} left={1 - share} mark={1} most={1} />{/if}
							<small>{figuresOf(page, one)}</small>
							{#if one.target || end}<small
									>{one.target ? `to be done by ${dateWords(one.target, page.today)}` : ''}
									{#if end}<b class={end.tone}>{end.text}</b>{/if}</small
								>{/if}
							{#if one.hours !== null}<small
									>{amount(one.worked, 'hours')} worked of {amount(one.hours, 'hours')}{#if over}<b
											class="late">, {over}</b
										>{/if}</small
								>{/if}
							{#if one.letThrough}<small class="care">let through: {one.letThrough}</small>{/if}
						</li>
					{/each}
				</ul>
				{#if name === null && lead}
					<form onsubmit={add}>
						<input
							aria-label="A new initiative"
							placeholder="a new initiative"
							maxlength="80"
							bind:value={adding}
						/>
						{#if adding.trim()}<select class="choice" aria-label="Of which board" bind:value={board}
								>{#each page.boards.filter(({ role }) => role === 'lead') as { id, name: called }, i (id)}<option
										value={i ? id : ''}>on {called}</option
									>{/each}</select
							><button class="go">Add it</button>{/if}
					</form>
				{/if}
			</section>
		{/if}
	{/each}
</div>
{#if full}
	{@const asking = full}
	{#await import('../dialogs/Dialog.svelte') then { default: Dialog }}
		<Dialog title="{asking.stage} is full" onclose={() => (full = null)}>
			<form
				onsubmit={(event) => {
					event.preventDefault();
					if (reason.trim()) void move(asking.one, asking.stage, reason.trim());
				}}
			>
				<p>{asking.words}</p>
				<label for="stage-reason">Why it is let through</label>
				<input id="stage-reason" class="reason" maxlength="200" required bind:value={reason} />
				<div class="dialog-foot">
					<button type="button" class="plain" onclick={() => (full = null)}>Leave it</button>
					<button class="go">Let it through</button>
				</div>
			</form>
		</Dialog>
	{/await}
{/if}

<style>
	.stages {
		flex: 1;
		min-height: 0;
		display: flex;
		gap: 14px;
		overflow: auto;
		padding: 6px 20px 20px;
		align-items: flex-start;
	}
	.none {
		margin: 0;
	}
	section {
		flex: 1 0 220px;
		max-width: 320px;
		border-top: 3px solid var(--moss);
		padding-top: 6px;
		min-height: 160px;
	}
	section.none {
		border-top: 3px dashed var(--edge);
	}
	.aim {
		background: var(--moss-2);
	}
	h2 {
		font-size: 1.1rem;
		display: flex;
		justify-content: space-between;
	}
	h2 span {
		font: 560 0.95rem var(--text);
		color: var(--soft);
	}
	h2 .warn {
		color: var(--brick);
	}
	ul {
		margin: 6px 0 0;
		display: grid;
		gap: 8px;
	}
	li {
		position: relative;
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 3px 8px;
		padding: 8px 10px;
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-radius: 4px;
	}
	li > :global(.bar),
	small {
		grid-column: 1 / -1;
	}
	li > :global(.bar) {
		height: 10px;
	}
	.held {
		z-index: 5;
		pointer-events: none;
		box-shadow: 0 6px 18px #0003;
	}
	.grip {
		display: none;
	}
	a {
		font-weight: 650;
		text-decoration: none;
		min-height: max(24px, var(--touch, 0px));
		overflow-wrap: anywhere;
	}
	small {
		color: var(--soft);
	}
	.late {
		color: var(--brick);
	}
	.in-time {
		color: var(--river);
	}
	.soft {
		font-weight: 450;
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 10px;
		margin-top: 10px;
	}
	form > input {
		flex: 1 1 100%;
		min-height: max(34px, var(--touch, 0px));
		border: 1px dashed var(--edge);
		border-radius: 4px;
		background: none;
		color: var(--ink);
		font: inherit;
		padding: 3px 8px;
	}
	input::placeholder {
		color: var(--faint);
		opacity: 1;
	}
	form > p {
		margin: 0;
	}
	.dialog-foot {
		flex: 1 1 100%;
	}
	@media (pointer: coarse) {
		.grip {
			display: grid;
			place-items: center;
			position: absolute;
			right: 0;
			bottom: 0;
			width: 44px;
			height: 44px;
			touch-action: none;
			color: var(--faint);
		}
	}
	@media (max-width: 700px) {
		.stages {
			flex-direction: column;
			align-items: stretch;
			padding: 6px 14px 20px;
		}
		section {
			flex: none;
			max-width: none;
			min-height: 60px;
		}
	}
</style>
