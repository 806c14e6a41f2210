<script lang="ts">
	import { untrack } from 'svelte';
	import {
		MOST_BEFORE,
		NOTICE_KINDS,
		NOTICE_NAMES,
		wayOf,
		type NoticeChoices,
		type NoticeKind,
	} from '$core/notices/kinds';
	import type { NoticesPage } from '$core/pages/notices';
	import type { Command, CommandInput } from '../../commands';
	import { count } from '../words';

	interface Props {
		choices: NoticeChoices;
		boards: NoticesPage['boards'];
		tell: <C extends Command>(command: C, input: CommandInput<C>) => Promise<boolean>;
		onclose: () => void;
	}
	/** Of what one wants to be told: kind by kind, and on which boards not at all. */
	let { choices, boards, tell, onclose }: Props = $props();
	let kinds = $state<NonNullable<NoticeChoices['kinds']>>(untrack(() => ({ ...choices.kinds })));
	let byBoard = $state<NonNullable<NoticeChoices['boards']>>(untrack(() => ({ ...choices.boards })));
	const wants = (kind: NoticeKind) => wayOf({ kinds }, kind, '') !== 'none';
	const mute = (board: string) => byBoard[board]?.all === 'none';

	let before = $state(untrack(() => choices.before ?? 1));
	const keep = () => void tell('ChooseNotices', { kinds, boards: byBoard, before });
	function choose(kind: NoticeKind, on: boolean): void {
		kinds = { ...kinds, [kind]: on ? 'harrow' : 'none' };
		keep();
	}
	function hush(board: string, on: boolean): void {
		const { [board]: _own, ...others } = byBoard;
		byBoard = on ? { ...others, [board]: { all: 'none' } } : others;
		keep();
	}
</script>

<section aria-label="What you are told">
	<div class="lists">
		<fieldset>
			<legend>Tell me when</legend>
			{#each NOTICE_NAMES as kind (kind)}<label
					><input
						type="checkbox"
						checked={wants(kind)}
						onchange={(event) => choose(kind, event.currentTarget.checked)}
					/>{NOTICE_KINDS[kind].called}</label
				>{/each}
		</fieldset>
		<fieldset>
			<legend>Dates</legend>
			<label
				>Tell me
				<select
					class="choice"
					aria-label="Working days before"
					value={String(before)}
					onchange={(event) => {
						before = Number(event.currentTarget.value);
						keep();
					}}
				>
					{#each Array.from({ length: MOST_BEFORE + 1 }, (_, n) => n) as n (n)}<option value={String(n)}
							>{n ? count(n, 'working day') : 'on the day'}</option
						>{/each}
				</select>
				{before ? 'before something is due' : 'when something is due'}</label
			>
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
						><input
							type="checkbox"
							checked={mute(id)}
							onchange={(event) => hush(id, event.currentTarget.checked)}
						/>tell me nothing of it<span class="sr-only">: {name}</span></label
					>
				</div>{:else}<p class="soft">You are in no team yet.</p>{/each}
		</fieldset>
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
	.lists {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
		gap: 8px 24px;
	}
	fieldset {
		border: 0;
		padding: 0;
		margin: 0;
		min-width: 0;
	}
	h3,
	legend {
		font: 600 1rem var(--text);
		margin-top: 6px;
		padding: 0;
		margin-bottom: 4px;
	}
	label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: 26px;
	}
	.board {
		padding-bottom: 6px;
	}
	@media (pointer: coarse) {
		label {
			min-height: 44px;
		}
	}
</style>
