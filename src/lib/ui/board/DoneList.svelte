<script lang="ts">
	import type { CardView } from '$core/pages/board';
	import { dayText } from '$core/calendar/days';
	import type { Day } from '$core/calendar/zone';
	import { dateWords, dayOf, dueWords } from '../words';

	interface Props {
		cards: CardView[];
		today: Day;
		timeZone: string;
		tabbable: string | null;
		open: (card: CardView) => string;
	}
	/** Finished cards by day, newest first. */
	let { cards, today, timeZone, tabbable, open }: Props = $props();

	const days = $derived.by(() => {
		const days = new Map<Day, CardView[]>();
		for (const card of cards) {
			const day = dayOf(card.finished!, timeZone);
			const there = days.get(day);
			if (there) there.push(card);
			else days.set(day, [card]);
		}
		return [...days];
	});
	const words = (day: Day) =>
		day === today ? 'Today' : day === today - 1 ? 'Yesterday' : dateWords(dayText(day));
</script>

{#each days as [day, done] (day)}
	<h3>{words(day)}</h3>
	<ul>
		{#each done as card (card.id)}
			<li data-card={card.id}>
				<a
					href={open(card)}
					data-sveltekit-noscroll
					data-sveltekit-keepfocus
					draggable="false"
					tabindex={tabbable === card.id ? 0 : -1}
					><b>{card.number}</b>
					{card.title}{#if card.due}{@const on = dueWords(card.due, today, day)}<small class={on.tone}
							>{on.tone === 'late' ? on.text : 'on time'}</small
						>{/if}</a
				>
			</li>
		{/each}
	</ul>
{/each}

<style>
	h3 {
		font: 500 12px var(--text);
		color: var(--faint);
		margin: 9px 0 2px;
	}
	h3:first-child {
		margin-top: 0;
	}
	a {
		display: block;
		padding: 3px 2px;
		border-bottom: 1px dotted var(--rule);
		font-size: 0.92rem;
		text-decoration: none;
		overflow-wrap: anywhere;
	}
	a:hover {
		color: var(--moss);
	}
	small {
		margin-left: 6px;
		font-size: 12px;
		color: var(--moss);
	}
	small.late {
		color: var(--brick);
	}
	b {
		font-weight: 600;
		color: var(--faint);
	}
	@media (pointer: coarse) {
		a {
			padding: 13px 2px;
		}
	}
</style>
