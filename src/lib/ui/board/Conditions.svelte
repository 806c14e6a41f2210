<script lang="ts">
	import { withCondition, type Condition } from '$core/board/filter';
	import type { Offered } from '$core/pages/board';

	interface Props {
		/** The fields that there are; none while they are still asked for. */
		offered: readonly Offered[];
		where: Condition[];
		/** They could not be had. */
		failed?: boolean;
		/** What a condition says. */
		words: (condition: Condition) => string;
		onwhere: (where: Condition[]) => void;
		onopen?: () => void;
	}
	/** Conditions on any field: one of its values, or what plain words of it say; or none of them. */
	let { offered, where, failed = false, words, onwhere, onopen }: Props = $props();
	let menu = $state<HTMLElement>();
	let trigger = $state<HTMLElement>();
	let open = $state(false);
	let chosen = $state('due');

	const field = $derived(offered.find(({ id }) => id === chosen) ?? offered[0]);
	const condition = $derived(where.find((one) => one.field === field?.id));
	const any = $derived(condition?.any ?? []);

	function choose(key: string, on: boolean): void {
		const next = on ? [...any, key] : any.filter((one) => one !== key);
		onwhere(withCondition({ where }, field!.id, next, condition?.not ?? false).where);
	}
	function place(event: ToggleEvent): void {
		open = event.newState === 'open';
		if (open) onopen?.();
		if (!open || !trigger || !menu) return;
		const box = trigger.getBoundingClientRect();
		menu.style.top = `${box.bottom + 4}px`;
		menu.style.left = `${Math.max(8, Math.min(box.left, innerWidth - 288))}px`;
	}
</script>

<button
	type="button"
	class="link"
	popovertarget="conditions"
	aria-expanded={open}
	aria-label="and… by any field"
	bind:this={trigger}>and…</button
>
<div
	id="conditions"
	popover="auto"
	bind:this={menu}
	onbeforetoggle={place}
	role="group"
	aria-label="Narrow by any field"
>
	{#if field}<p class="field">
			<select aria-label="Field" bind:value={chosen}>
				{#each offered as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
			</select>
			<select
				aria-label="One or none of these"
				value={condition?.not ? 'none' : 'one'}
				disabled={!condition}
				onchange={({ currentTarget: { value } }) =>
					onwhere(withCondition({ where }, field.id, any, value === 'none').where)}
			>
				<option value="one">is one of</option>
				<option value="none">is none of</option>
			</select>
		</p>
		<ul>
			{#each field.choices as choice (choice.key)}<li>
					<label
						><input
							type="checkbox"
							checked={any.includes(choice.key)}
							onchange={(event) => choose(choice.key, event.currentTarget.checked)}
						/>
						{choice.name}</label
					>
				</li>{/each}
		</ul>{:else}<p role="status">
			{failed ? 'What it can be narrowed by could not be read. Open this again.' : 'Reading what there is…'}
		</p>{/if}
	{#if where.length}<p>{where.map(words).join('; ')}</p>{/if}
</div>

<style>
	.link {
		min-height: 26px;
		min-width: 26px;
	}
	div {
		position: fixed;
		inset: auto;
		margin: 0;
		width: 280px;
		padding: 10px 12px;
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--edge);
		border-radius: 4px;
		box-shadow: 0 8px 24px #0003;
	}
	.field {
		margin: 0;
		display: flex;
		align-items: center;
		gap: 8px;
		min-height: 32px;
	}
	.field select {
		flex: 1;
		min-width: 0;
		font: inherit;
		color: inherit;
		background-color: transparent;
		border: 0;
		border-bottom: 1px solid var(--moss);
		padding: 2px 24px 2px 2px;
	}
	option {
		color: var(--ink);
		background: var(--sheet);
	}
	input {
		width: 18px;
		height: 18px;
		accent-color: var(--moss);
		color: var(--moss);
		border: 1px solid var(--edge);
		border-radius: 2px;
	}
	ul {
		list-style: none;
		margin: 6px 0 0;
		padding: 0;
		max-height: 46vh;
		overflow-y: auto;
	}
	li label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: 30px;
		overflow-wrap: anywhere;
	}
	p:not(.field) {
		color: var(--soft);
		margin: 8px 0 0;
		font-size: 0.93rem;
	}
	@media (pointer: coarse) {
		.link,
		li label,
		.field {
			min-height: 44px;
		}
	}
</style>
