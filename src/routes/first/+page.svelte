<script lang="ts">
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import { Input, Label } from 'flowbite-svelte';
	import Account from '$lib/ui/make/Account.svelte';
	import TeamFields from '$lib/ui/make/TeamFields.svelte';
	import Templates from '$lib/ui/make/Templates.svelte';
	import Mark from '$lib/ui/frame/Mark.svelte';

	let { data, form } = $props();
	let code = $state(untrack(() => data.code));
	let team = $state('');
	let zone = $state('');
	let days = $state([true, true, true, true, true, false, false]);
	let template = $state(untrack(() => data.templates[0]!.id));
	let board = $state('');
	let waiting = $state(false);
</script>

<main>
	<h1>
		<Mark width={34} /> Harrow is new here
	</h1>
	<p class="soft">
		Say who you are, who your team is and how its work goes. You lead the team, and everything here can be
		changed later.
	</p>
	<form
		method="POST"
		use:enhance={() => {
			waiting = true;
			return async ({ update }) => {
				await update({ reset: false });
				waiting = false;
			};
		}}
	>
		<section aria-labelledby="first-you">
			<h2 id="first-you">You</h2>
			<div class="fields">
				<Account wrong={form?.field} />
				{#if data.code}<input type="hidden" name="code" value={code} />{:else}<div>
						<Label for="first-code">The code that the server printed when it started</Label>
						<Input id="first-code" name="code" required autocomplete="off" bind:value={code} />
					</div>{/if}
			</div>
		</section>
		<section aria-labelledby="first-team">
			<h2 id="first-team">Your team</h2>
			<div class="fields"><TeamFields bind:name={team} bind:zone bind:days /></div>
		</section>
		<section aria-labelledby="first-board">
			<h2 id="first-board">How its work goes</h2>
			<div class="fields">
				<div>
					<Label for="first-board-name">What its first board is called</Label>
					<Input id="first-board-name" name="board" required maxlength={80} bind:value={board} />
				</div>
			</div>
			<Templates templates={data.templates} bind:chosen={template} />
		</section>
		<div class="foot">
			<p id="form-problem" class="warn" role="alert">{form?.problem ?? ''}</p>
			<button class="go" disabled={waiting}>{waiting ? 'Setting up…' : 'Begin'}</button>
		</div>
	</form>
</main>

<style>
	main {
		width: min(1060px, 100%);
		margin: 0 auto;
		padding: 28px 20px 20px;
	}
	h1 {
		display: flex;
		gap: 12px;
		align-items: center;
		font-size: 2rem;
	}
	h1 :global(svg) {
		color: var(--ochre-fill);
	}
	h2 {
		font-size: 1.15rem;
		margin: 20px 0 8px;
	}
	.soft {
		margin: 6px 0 0;
		max-width: 62ch;
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(3, minmax(0, 1fr));
		gap: 12px 18px;
		align-items: end;
		margin-bottom: 12px;
	}
	.foot {
		position: sticky;
		bottom: 0;
		display: flex;
		gap: 16px;
		align-items: center;
		justify-content: flex-end;
		padding: 12px 0;
		margin-top: 16px;
		background: var(--paper);
		border-top: 1px solid var(--rule);
	}
	.foot p {
		margin: 0;
		flex: 1;
	}
	@media (max-width: 760px) {
		.fields {
			grid-template-columns: 1fr;
		}
	}
</style>
