<script lang="ts">
	import { addMonths, format, parseISO } from 'date-fns';
	import { dayText, parseDay, weekday } from '$core/calendar/days';
	import { dateWords } from '../words';

	interface Props {
		today: string;
		/** The day whose month is shown first; today’s where it is left out. */
		begin?: string;
		/** What a day is: its hours, and why they are not the usual ones; left out where only the day counts. */
		about?: (day: string) => {
			hours: number;
			note: string;
			kind: 'work' | 'away' | 'part' | 'holiday' | 'free';
		};
		/** The days that are chosen: the first and the last. */
		from: string;
		to: string;
		onchoose: (from: string, to: string) => void;
	}
	/** A month of days: one click chooses a day, a second one with Shift, or a drag, the last of several. */
	let { today, begin = today, about, from, to, onchoose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let month = $state(begin.slice(0, 7));
	const days = $derived.by(() => {
		const first = parseDay(`${month}-01`)!;
		const next = parseDay(`${format(addMonths(parseISO(`${month}-01`), 1), 'yyyy-MM')}-01`)!;
		return {
			blank: weekday(first),
			list: Array.from({ length: next - first }, (_, i) => dayText(first + i)),
		};
	});
	let anchor: string | null = null;
	let dragging = false;

	function choose(day: string, more: boolean): void {
		if (!more || !anchor) {
			anchor = day;
			onchoose(day, day);
		} else onchoose(anchor < day ? anchor : day, anchor < day ? day : anchor);
	}
	function go(by: number): void {
		month = format(addMonths(parseISO(`${month}-01`), by), 'yyyy-MM');
	}
	function onkeydown(event: KeyboardEvent): void {
		const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key];
		const day = (event.target as HTMLElement).dataset.day;
		if (!step || !day) return;
		event.preventDefault();
		const next = dayText(parseDay(day)! + step);
		month = next.slice(0, 7);
		const grid = event.currentTarget as HTMLElement;
		queueMicrotask(() => {
			if (event.shiftKey) choose(next, true);
			requestAnimationFrame(() => grid.querySelector<HTMLElement>(`[data-day="${next}"]`)?.focus());
		});
	}
</script>

<div class="head">
	<button type="button" class="plain" aria-label="Month before" onclick={() => go(-1)}>←</button>
	<b aria-live="polite">{format(parseISO(`${month}-01`), 'MMMM yyyy')}</b>
	<button type="button" class="plain" aria-label="Month after" onclick={() => go(1)}>→</button>
</div>
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div class="grid" role="group" aria-label="Days" {onkeydown} onpointerup={() => (dragging = false)}>
	{#each ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'] as name (name)}<span class="name" aria-hidden="true"
			>{name}</span
		>{/each}
	{#each Array.from({ length: days.blank }, (_, i) => i) as i (i)}<span></span>{/each}
	{#each days.list as day (day)}
		{@const known = about?.(day)}
		<button
			type="button"
			data-day={day}
			class={known?.kind ?? 'work'}
			class:today={day === today}
			aria-pressed={day >= from && day <= to && Boolean(from)}
			title={known && (known.note || `${known.hours} h`)}
			onclick={(event) => choose(day, event.shiftKey)}
			onpointerdown={() => (dragging = true)}
			onpointerenter={() => {
				if (dragging && anchor !== null && anchor !== day) choose(day, true);
			}}
			onpointerleave={() => {
				if (dragging && anchor === null) choose(day, false);
			}}
			><span class="sr-only"
				>{dateWords(day, today)}{known
					? `: ${[known.note, `${known.hours} h`].filter(Boolean).join(', ')}`
					: ''}</span
			><span class="number" aria-hidden="true">{Number(day.slice(8))}</span>{#if known}<small
					aria-hidden="true">{known.hours ? known.hours : ''}</small
				>{/if}</button
		>
	{/each}
</div>

<style>
	.head {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 6px;
	}
	.head .plain {
		padding: 2px 10px;
		min-width: var(--touch, auto);
		min-height: max(30px, var(--touch, 0px));
	}
	.grid {
		display: grid;
		grid-template-columns: repeat(7, 1fr);
		gap: 2px;
		user-select: none;
	}
	.name {
		font-size: 12px;
		text-align: center;
		color: var(--soft);
	}
	.grid button {
		display: flex;
		flex-direction: column;
		align-items: center;
		justify-content: center;
		min-height: max(36px, var(--touch, 0px));
		padding: 0;
		border: 1px solid transparent;
		border-radius: 3px;
		background: var(--sunk);
		color: var(--ink);
		font: inherit;
		line-height: 1.15;
	}
	.grid small {
		font-size: 12px;
		color: var(--soft);
	}
	.grid .free {
		background: none;
		color: var(--soft);
	}
	.grid :is(.away, .holiday),
	.grid .part {
		background: repeating-linear-gradient(135deg, var(--rule) 0 1.5px, var(--sheet) 1.5px 6px);
		border-color: var(--edge);
	}
	.grid :is(.away, .holiday) .number {
		background: var(--sheet);
		padding: 0 3px;
	}
	.grid .holiday {
		border-style: dashed;
	}
	.today {
		font-weight: 750;
		text-decoration: underline;
	}
	.grid [aria-pressed='true'] {
		border: 2px solid var(--ink);
	}
</style>
