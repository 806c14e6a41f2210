<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto, invalidate } from '$app/navigation';
	import { Textarea } from 'flowbite-svelte';
	import { onMount } from 'svelte';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { count, momentWords } from '$lib/ui/words';

	let { data, form } = $props();
	let zone = $state('UTC');
	onMount(() => (zone = Intl.DateTimeFormat().resolvedOptions().timeZone));
	let open = $state('');
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<div class="top">
		<h1>
			<b>{count(data.letters.length, 'letter')}</b>{data.letters.length
				? ', and none of them left this machine.'
				: ': nothing was mailed yet.'}
		</h1>
		<label class="whom"
			>to
			<select
				class="choice"
				value={data.to ?? ''}
				onchange={(event) =>
					void goto(
						event.currentTarget.value ? `?to=${encodeURIComponent(event.currentTarget.value)}` : '?',
						{
							keepFocus: true,
						},
					)}
			>
				<option value="">anyone</option>
				{#each data.people as { name, address } (address)}<option value={address}>{name || address}</option
					>{/each}
			</select></label
		>
		<button type="button" class="link" onclick={() => void invalidate('harrow:outbox')}>Look again</button>
	</div>
	<p class="soft">
		In this demonstration a small mail server stands in for a real one and keeps what it is given. Who wants
		letters says so with their <a class="link" href="/notices">notices</a>.
	</p>
	<ul>
		{#each data.letters as letter (letter.id)}
			<li class:open={open === letter.id}>
				<button
					type="button"
					class="head"
					aria-expanded={open === letter.id}
					onclick={() => (open = open === letter.id ? '' : letter.id)}
				>
					<span class="to">{letter.to.name || letter.to.address}</span>
					<span class="subject">{letter.subject}</span>
					<time datetime={letter.at}>{momentWords(letter.at, zone)}</time>
				</button>
				{#if open === letter.id}
					<div class="letter">
						<pre>{letter.text}</pre>
						{#if letter.reply}
							<form method="POST" action="?/answer" use:enhance>
								<input type="hidden" name="letter" value={letter.id} />
								<label for="answer-{letter.id}">Answer it, as {letter.to.name} would by mail</label>
								<Textarea
									id="answer-{letter.id}"
									name="text"
									rows={2}
									class="w-full"
									value={form?.letter === letter.id && !form.sent ? (form.text ?? '') : ''}
								/>
								<p role="status" class:warn={form?.letter === letter.id && !form.sent}>
									{form?.letter !== letter.id
										? ''
										: form.sent
											? 'Sent. It stands on the card now.'
											: form.problem}
								</p>
								<button class="plain start">Send the answer</button>
							</form>
						{/if}
					</div>
				{/if}
			</li>
		{/each}
	</ul>
</main>

<style>
	main {
		width: min(860px, 100%);
		margin: 0 auto;
		padding: 14px 20px 60px;
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 18px;
		align-items: baseline;
	}
	h1 {
		font: 400 1rem var(--text);
		flex: 1;
	}
	.soft {
		margin: 4px 0 10px;
	}
	ul {
		border-top: 1px solid var(--rule);
	}
	li {
		border-bottom: 1px solid var(--rule);
	}
	.head {
		display: grid;
		grid-template-columns: 10rem minmax(0, 1fr) auto;
		gap: 12px;
		width: 100%;
		min-height: max(38px, var(--touch, 0px));
		align-items: center;
		padding: 4px 8px;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
	}
	.head:hover,
	.open .head {
		background: var(--sheet);
	}
	.subject {
		font-weight: 560;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	time {
		color: var(--soft);
	}
	.letter {
		padding: 4px 20px 16px;
		background: var(--sheet);
	}
	pre {
		font: inherit;
		white-space: pre-wrap;
		overflow-wrap: anywhere;
		margin: 0 0 12px;
		padding: 14px 18px;
		background: var(--paper);
		border: 1px solid var(--rule);
		border-left: 4px solid var(--river);
	}
	form {
		display: grid;
		gap: 6px;
	}
	.start {
		justify-self: start;
	}
	form p {
		margin: 0;
		min-height: 1.4em;
	}
	@media (max-width: 560px) {
		.head {
			grid-template-columns: minmax(0, 1fr) auto;
			min-height: 56px;
		}
		.subject {
			grid-column: 1 / -1;
			grid-row: 2;
		}
		.letter {
			padding: 4px 10px 14px;
		}
	}
</style>
