<script lang="ts">
	import type { NoticeView } from '$core/pages/notices';
	import { noticeAddress } from '$core/notices/address';
	import Answer from '../form/Answer.svelte';
	import DateField from '../form/DateField.svelte';
	import NameTag from '../board/NameTag.svelte';
	import { count, momentWords } from '../words';

	interface Props {
		notice: NoticeView;
		timeZone: string;
		/** It is being answered. */
		answering: boolean;
		onanswering: (on: boolean) => void;
		onanswer: (text: string) => Promise<boolean>;
		/** Who is told; today, for days that are typed. */
		me: string;
		today: string;
		onread: (read: boolean) => void;
		/** Becomes one of the owners of its card; gives it another due date. */
		ontake: () => void;
		ondate: (due: string) => Promise<boolean>;
		onaway: () => void;
		onback: () => void;
	}
	/** A notice: what happened, to what, and what can be done about it right here. */
	let {
		notice,
		timeZone,
		answering,
		onanswering,
		onanswer,
		me,
		today,
		onread,
		ontake,
		ondate,
		onaway,
		onback,
	}: Props = $props();
	const rest = $derived(notice.times - notice.says.length);

	/** What asks for somebody, and nobody has taken: it can be taken here. */
	const takes = $derived(
		notice.card?.works &&
			!notice.card.owners.includes(me) &&
			['asked', 'mentioned', 'taken-away', 'watch', 'unblocked', 'late'].includes(notice.kind),
	);
	const dates = $derived(notice.card?.works && ['due', 'late', 'dated', 'reminder'].includes(notice.kind));
	let dating = $state(false);
	let due = $state('');
	async function date(): Promise<void> {
		if (due && due !== notice.card!.due) if (!(await ondate(due))) return;
		dating = false;
	}

	/** How far a finger has drawn it aside; from so far on it is put away. */
	let drawn = $state(0);
	const FAR_PX = 90;
	let from: { x: number; y: number } | null = null;
	function ontouchstart({ touches }: TouchEvent) {
		from = touches.length === 1 ? { x: touches[0]!.clientX, y: touches[0]!.clientY } : null;
	}
	function ontouchmove({ touches }: TouchEvent) {
		if (!from) return;
		const [x, y] = [touches[0]!.clientX - from.x, touches[0]!.clientY - from.y];
		// Who scrolls does not put away.
		if (Math.abs(y) > Math.abs(x) && !drawn) from = null;
		else drawn = Math.min(0, x);
	}
	function ontouchend() {
		const far = drawn < -FAR_PX;
		drawn = 0;
		from = null;
		if (far && !notice.away) onaway();
	}
</script>

<li
	data-notice={notice.id}
	class:unread={!notice.read}
	class:open={notice.open}
	style:transform={drawn ? `translateX(${drawn}px)` : undefined}
	{ontouchstart}
	{ontouchmove}
	{ontouchend}
	ontouchcancel={ontouchend}
>
	<span class="who"
		>{#if notice.by}<NameTag person={notice.by} />{/if}</span
	>
	<div>
		<p class="says">{notice.says[0]}</p>
		{#each notice.says.slice(1) as sentence, i (i)}<p class="more">{sentence}</p>{/each}
		{#if rest > 0}<p class="more">and {count(rest, 'more change')} before</p>{/if}
		<p class="about">
			<a data-first href={noticeAddress(notice)} onclick={() => !notice.read && onread(true)}
				>{#if notice.card}<b>{notice.card.key}</b> {notice.card.title}{:else}{notice.page?.initiative ??
						notice.board.name}{/if}</a
			>
			<small
				>{notice.card || notice.page?.initiative ? `${notice.board.name}, ` : ''}{momentWords(
					notice.at,
					timeZone,
				)}</small
			>
		</p>
		{#if answering}
			<Answer label="Your answer" onsay={onanswer} onleave={() => onanswering(false)} />
		{:else if dating}
			<form
				class="date"
				onsubmit={(event) => {
					event.preventDefault();
					void date();
				}}
			>
				<DateField id="due-{notice.id}" label="Due" bind:value={due} {today} />
				<button class="go" disabled={!due}>Move it</button>
				<button type="button" class="plain" onclick={() => (dating = false)}>Leave it</button>
			</form>
		{:else}
			<p class="acts">
				{#if (notice.card || notice.page) && notice.comment}<button
						type="button"
						class={notice.open ? 'go' : 'link'}
						onclick={() => onanswering(true)}>Answer</button
					>{/if}
				{#if takes}<button type="button" class="link" onclick={ontake}
						>Take it<span class="sr-only">: {notice.card!.key}</span></button
					>{/if}
				{#if dates}<button
						type="button"
						class="link"
						onclick={() => {
							due = notice.card!.due ?? '';
							dating = true;
						}}>Move the date<span class="sr-only"> of {notice.card!.key}</span></button
					>{/if}
				<button type="button" class="link" onclick={() => onread(!notice.read)}
					>{notice.read ? 'Not read' : 'Read'}<span class="sr-only">: {notice.says[0]}</span></button
				>
				{#if notice.away}<button type="button" class="link" onclick={onback}
						>Bring back<span class="sr-only">: {notice.says[0]}</span></button
					>{:else}<button type="button" class="link" onclick={onaway}
						>Put away<span class="sr-only">: {notice.says[0]}</span></button
					>{/if}
			</p>
		{/if}
	</div>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 34px 1fr;
		gap: 0 10px;
		padding: 9px 0 8px;
		border-bottom: 1px dotted var(--edge);
		overflow-wrap: anywhere;
	}
	.who {
		position: relative;
		padding-top: 1px;
	}
	/* What is new has a dot before it. */
	.unread .who::before {
		content: '';
		position: absolute;
		left: -14px;
		top: 7px;
		width: 8px;
		height: 8px;
		border-radius: 50%;
		background: var(--moss);
	}
	.open .who::before {
		background: var(--ochre);
	}
	.unread .says {
		font-weight: 600;
	}
	.more {
		color: var(--soft);
		font-size: 0.9rem;
	}
	.about {
		min-height: max(24px, var(--touch, 0px));
	}
	.about small {
		margin-left: 8px;
	}
	small {
		font-size: 12px;
		color: var(--faint);
	}
	@media (max-width: 700px) {
		.about small {
			display: block;
			margin-left: 0;
		}
	}
	.date {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px;
		padding-top: 6px;
	}
	.acts {
		flex-wrap: wrap;
		display: flex;
		align-items: center;
		gap: 16px;
		font-size: 0.9rem;
	}
	.acts .link {
		min-height: max(26px, var(--touch, 0px));
	}
	@media (pointer: coarse) {
		.about a {
			display: inline-block;
			padding-block: 10px;
		}
	}
</style>
