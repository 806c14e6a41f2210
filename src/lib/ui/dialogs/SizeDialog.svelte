<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import type { CardView, Unit } from '$core/pages/board';
	import { needsReason, sized } from '$core/sprint/left';
	import Dialog from './Dialog.svelte';

	interface Props {
		card: CardView;
		unit: Unit;
		onsize: (size: number | null, left: number | null, reason?: string) => void;
		onclose: () => void;
	}
	let { card, unit, onsize, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let size = $state(card.size === null ? '' : String(card.size));
	// svelte-ignore state_referenced_locally
	let left = $state(String(card.left));
	let problem = $state('');
	let reason = $state('');
	/** A large correction is kept with its reason. */
	const large = $derived.by(() => {
		const rest = read(left);
		const given = read(size);
		if (rest === null || card.size === null || rest === card.left) return false;
		const moved = given === null || given === card.size ? card : sized(card, given, false);
		return needsReason(moved.size, moved.left, rest, unit);
	});
	const take = (element: HTMLElement) => element.querySelector('input')?.select();
	const read = (text: string) =>
		/^\d{1,4}([.,]\d{1,2})?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : null;

	function submit(event: SubmitEvent) {
		event.preventDefault();
		const given = read(size);
		const rest = read(left);
		if (size.trim() && given === null)
			problem = 'The size must be a number from 0 to 9,999 with at most two decimals.';
		else if (rest === null)
			problem = 'What is left must be a number from 0 to 9,999 with at most two decimals.';
		else if (large && !reason.trim())
			problem = 'That is a large correction of what is left. Say why: it is kept with the card.';
		else
			onsize(
				given !== card.size ? given : null,
				rest !== card.left ? rest : null,
				large ? reason.trim() : undefined,
			);
	}
</script>

<Dialog title="Size of {card.number}" {onclose}>
	<form onsubmit={submit}>
		<div class="two" {@attach take}>
			<div>
				<Label for="size">Size in {unit}</Label>
				<Input
					id="size"
					bind:value={size}
					inputmode="decimal"
					autocomplete="off"
					aria-describedby="size-problem"
				/>
			</div>
			{#if card.size !== null && card.clock !== 'done'}
				<div>
					<Label for="left">Left of it</Label>
					<Input
						id="left"
						bind:value={left}
						inputmode="decimal"
						autocomplete="off"
						aria-describedby="size-problem"
					/>
				</div>
			{/if}
		</div>
		{#if large}
			<div class="why">
				<Label for="left-reason">Why it changes so much</Label>
				<Input id="left-reason" bind:value={reason} maxlength={300} aria-describedby="size-problem" />
			</div>
		{/if}
		<p class="soft">
			A new size moves what is left by the same difference. To correct only what is left, change that.
		</p>
		<p id="size-problem" class="warn" role="alert">{problem}</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Keep</button>
		</div>
	</form>
</Dialog>

<style>
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 12px;
	}
	.why {
		margin-top: 8px;
	}
	p {
		margin: 8px 0 0;
	}
</style>
