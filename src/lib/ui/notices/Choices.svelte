<script lang="ts">
	import { untrack } from 'svelte';
	import {
		MOST_BEFORE,
		NOTICE_KINDS,
		NOTICE_NAMES,
		WAYS,
		wayOf,
		type NoticeChoices,
		type NoticeKind,
		type Way,
	} from '$core/notices/kinds';
	import type { NoticesPage } from '$core/pages/notices';
	import type { Command, CommandInput } from '../../commands';
	import { USUAL_DIGEST } from '$core/notices/hours';
	import { count } from '../words';

	interface Props {
		choices: NoticeChoices;
		boards: NoticesPage['boards'];
		/** The address to which letters go; null where there is no mail server. */
		mail: string | null;
		tell: <C extends Command>(command: C, input: CommandInput<C>) => Promise<boolean>;
		onclose: () => void;
	}
	/** Of what one wants to be told and how: kind by kind, and on which boards otherwise. */
	let { choices, boards, mail, tell, onclose }: Props = $props();
	let chosen = $state(untrack(() => ({ ...choices })));

	const NAMED: Record<Way, string> = {
		harrow: 'here',
		mail: 'by mail at once',
		digest: 'in the daily digest',
		none: 'not at all',
	};
	const ways = $derived(WAYS.filter((way) => mail !== null || way === 'harrow' || way === 'none'));
	/** A way that there is not here is told as in Harrow alone. */
	const shown = (way: Way): Way => (ways.includes(way) ? way : 'harrow');
	const digests = $derived(
		mail !== null &&
			(NOTICE_NAMES.some((kind) => wayOf(chosen, kind, '') === 'digest') ||
				Object.values(chosen.boards ?? {}).some((board) => Object.values(board).includes('digest'))),
	);

	function change(what: Partial<NoticeChoices>): void {
		chosen = { ...chosen, ...what };
		const { quiet, ...rest } = chosen;
		void tell('ChooseNotices', { ...rest, ...(quiet ? { quiet } : {}) });
	}
	const choose = (kind: NoticeKind, way: Way) => change({ kinds: { ...chosen.kinds, [kind]: way } });
	function onBoard(board: string, way: Way | ''): void {
		const { [board]: _own, ...others } = chosen.boards ?? {};
		change({ boards: way ? { ...others, [board]: { all: way } } : others });
	}
	const HOURS = Array.from({ length: 24 }, (_, hour) => hour);
	const hourWords = (hour: number) => `${String(hour).padStart(2, '0')}:00`;
</script>

{#snippet hours(label: string, value: number, onchoose: (hour: number) => void)}<select
		class="choice"
		aria-label={label}
		value={String(value)}
		onchange={(event) => onchoose(Number(event.currentTarget.value))}
		>{#each HOURS as hour (hour)}<option value={String(hour)}>{hourWords(hour)}</option>{/each}</select
	>{/snippet}

<section aria-label="What you are told">
	<table>
		<thead
			><tr
				><th scope="col">Tell me when</th>{#each ways as way (way)}<th scope="col">{NAMED[way]}</th
					>{/each}</tr
			></thead
		>
		<tbody>
			{#each NOTICE_NAMES as kind (kind)}<tr role="radiogroup" aria-label={NOTICE_KINDS[kind].called}
					><th scope="row">{NOTICE_KINDS[kind].called}</th>{#each ways as way (way)}<td
							><label
								><input
									type="radio"
									name="way-{kind}"
									checked={shown(wayOf({ kinds: chosen.kinds }, kind, '')) === way}
									onchange={() => choose(kind, way)}
								/><span class="sr-only">{NAMED[way]}</span></label
							></td
						>{/each}</tr
				>{/each}
		</tbody>
	</table>
	<div class="more">
		<div>
			<h3>Dates</h3>
			<label
				>Tell me
				<select
					class="choice"
					aria-label="Working days before"
					value={String(chosen.before ?? 1)}
					onchange={(event) => change({ before: Number(event.currentTarget.value) })}
				>
					{#each Array.from({ length: MOST_BEFORE + 1 }, (_, n) => n) as n (n)}<option value={String(n)}
							>{n ? count(n, 'working day') : 'on the day'}</option
						>{/each}
				</select>
				{chosen.before === 0 ? 'when something is due' : 'before something is due'}</label
			>
			{#if mail !== null}
				<h3>Mail</h3>
				<p class="soft">Letters go to {mail}. What you have read here by then is not in them.</p>
				{#if digests}<p>
						The digest comes at {@render hours(
							'Hour of the digest',
							chosen.digest ?? USUAL_DIGEST,
							(digest) => change({ digest }),
						)}
					</p>{/if}
				<label
					><input
						type="checkbox"
						checked={Boolean(chosen.quiet)}
						onchange={(event) => change({ quiet: event.currentTarget.checked ? [19, 7] : null })}
					/>quiet hours</label
				>
				{#if chosen.quiet}{@const [from, to] = chosen.quiet}
					<p>
						from {@render hours('Quiet from', from, (hour) => change({ quiet: [hour, to] }))}
						to {@render hours('Quiet to', to, (hour) => change({ quiet: [from, hour] }))}: what would be
						mailed then comes afterwards
					</p>{/if}
			{/if}
		</div>
		<div>
			<h3>Boards</h3>
			{#each boards as { id, name, watched } (id)}<div class="board">
					<b>{name}</b>
					<label
						><input
							type="checkbox"
							checked={watched}
							onchange={(event) => void tell('WatchBoard', { board: id, watch: event.currentTarget.checked })}
						/>watch all of it<span class="sr-only">: {name}</span></label
					>
					<label
						>tell me of it
						<select
							class="choice"
							aria-label="How you are told of {name}"
							value={chosen.boards?.[id]?.all ?? ''}
							onchange={(event) => onBoard(id, event.currentTarget.value as Way | '')}
							><option value="">as above</option>{#each ways as way (way)}<option value={way}
									>{way === 'harrow' ? 'here only' : NAMED[way]}</option
								>{/each}</select
						></label
					>
				</div>{:else}<p class="soft">You are in no team yet.</p>{/each}
		</div>
	</div>
	<p class="soft">
		You watch a card that you own, review, made or talked on, and any that you choose to; on the card you can
		stop.
	</p>
	<button type="button" class="plain" onclick={onclose}>Close</button>
</section>

<style>
	section {
		margin: 8px 0;
		padding: 10px 14px 12px;
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-radius: 4px;
	}
	.more {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
		gap: 4px 32px;
	}
	table {
		border-collapse: collapse;
		width: 100%;
	}
	thead th {
		font: 400 0.87rem var(--text);
		color: var(--soft);
		vertical-align: bottom;
		padding: 0 4px 4px;
		text-align: center;
	}
	input {
		flex: none;
	}
	thead th:first-child {
		padding-left: 0;
	}
	thead th:first-child,
	h3 {
		font: 600 1rem var(--text);
		color: inherit;
		text-align: left;
	}
	h3 {
		margin: 10px 0 2px;
	}
	tbody th {
		font-weight: 400;
		text-align: left;
		padding-right: 8px;
	}
	tbody tr {
		border-top: 1px dotted var(--rule);
	}
	td {
		width: 4.4rem;
	}
	td label {
		justify-content: center;
	}
	p {
		margin: 4px 0;
	}
	label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: max(28px, var(--touch, 0px));
	}
	.board {
		padding-bottom: 6px;
	}
	@media (max-width: 760px) {
		td {
			width: 3.6rem;
		}
	}
</style>
