<script lang="ts">
	import { withCondition, type Condition } from '$core/board/filter';
	import type { Offered } from '$core/pages/board';

	interface Props {
		offered: readonly Offered[];
		where: Condition[];
		failed: boolean;
		words: (condition: Condition) => string;
		onwhere: (where: Condition[]) => void;
		/** The field whose choices are shown. */
		chosen: string;
	}
	/** The choices of one field after the other, as conditions. */
	let { offered, where, failed, words, onwhere, chosen = $bindable() }: Props = $props();
	const field = $derived(offered.find(({ id }) => id === chosen) ?? offered[0]);
	const condition = $derived(where.find((one) => one.field === field?.id));
	const any = $derived(condition?.any ?? []);

	function choose(key: string, on: boolean): void {
		const next = on ? [...any, key] : any.filter((one) => one !== key);
		onwhere(withCondition({ where }, field!.id, next, condition?.not ?? false).where);
	}
</script>

{#if field}<p class="field">
		<select aria-label="Field" bind:value={chosen}>
			{#each offered as one, i (i)}<option value={one.id}>{one.name}</option>{/each}
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
		{#each field.choices as choice, i (i)}<li>
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

<style>
	.field {
		margin: 0;
		display: flex;
		align-items: center;
		gap: 8px;
		min-height: max(32px, var(--touch, 0px));
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
	input {
		width: 18px;
		height: 18px;
		accent-color: var(--moss);
		color: var(--moss);
		border: 1px solid var(--edge);
		border-radius: 2px;
	}
	ul {
		margin: 6px 0 0;
		max-height: 46vh;
		overflow-y: auto;
	}
	li label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: max(30px, var(--touch, 0px));
		overflow-wrap: anywhere;
	}
	p:not(.field) {
		color: var(--soft);
		margin: 8px 0 0;
		font-size: 0.93rem;
	}
</style>
