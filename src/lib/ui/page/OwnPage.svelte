<script lang="ts">
	import { setContext } from 'svelte';
	import type { OwnPage } from '$core/pages/own-page';
	import type { Command, CommandInput } from '../../commands';
	import type { BoardState } from '../board/board-state.svelte';
	import Files from '../card/Files.svelte';
	import Talk from '../card/Talk.svelte';
	import { pictureFor } from '../card/upload';
	import Written from '../form/Written.svelte';
	import { reread } from '../frame/reread';
	import { momentWords } from '../words';

	/** Notes, files and talk of a board, or of one of its initiatives, that are of no single card. */
	let { board, page }: { board: BoardState; page: OwnPage } = $props();
	const head = $derived(board.head);
	const works = $derived(head.role !== 'viewer' && !head.away);
	const of = $derived({
		board: head.id,
		...(page.initiative === null ? {} : { initiative: page.initiative }),
	});
	/** Under what a draft is kept. */
	const key = $derived(page.initiative === null ? `of-${head.slug}` : `of-${head.slug}-${page.initiative}`);
	setContext('named-cards', () => page.named);

	async function ask<C extends Command>(command: C, input: CommandInput<C>) {
		const sent = await board.ask(command, input);
		await reread('harrow:board');
		return sent;
	}
	const does = async <C extends Command>(command: C, input: CommandInput<C>) =>
		(await ask(command, input)).ok;
	async function attach(files: { upload: string; name: string }[]): Promise<string[] | null> {
		const sent = await ask('AttachToPage', { ...of, files });
		return sent.ok ? sent.answer.result.files : null;
	}
	const picture = (file: File) => pictureFor(file, async (sent) => (await attach([sent]))?.[0]);
	let files = $state<ReturnType<typeof Files>>();
	/** Files that are pasted anywhere here come to the page. */
	function onpaste(event: ClipboardEvent): void {
		const pasted = event.clipboardData?.files;
		if (!pasted?.length || !works) return;
		event.preventDefault();
		void files?.add([...pasted]);
	}
</script>

<div {onpaste}>
	{#key key}
		<Written
			title="Notes"
			of="notes-{key}"
			text={page.notes}
			mayEdit={works}
			onkeep={(text) => does('WriteNotes', { ...of, version: page.version, text })}
		/>
		{#if page.changes.length}
			<details>
				<summary>Who changed the notes</summary>
				<ol>
					{#each page.changes as { seq, at, who, undone, lines } (seq)}
						<li class:undone>
							<b>{who ?? 'Somebody'}</b>
							<time datetime={at}>{momentWords(at, head.timeZone)}</time>{undone ? ' (taken back)' : ''}
							{#each lines as { text, came }, i (i)}
								<p class:went={!came}>
									<span aria-hidden="true">{came ? '+' : '−'}</span>
									<span class="sr-only">{came ? 'Came:' : 'Went:'}</span>
									{text}
								</p>
							{/each}
						</li>
					{/each}
				</ol>
			</details>
		{/if}
		<Files
			bind:this={files}
			files={page.files}
			timeZone={head.timeZone}
			mayEdit={works}
			onattach={async (sent) => (await attach(sent)) !== null}
			onremove={async (file) => {
				const sent = await ask('RemovePageFile', { ...of, file: file.id });
				if (sent.ok) board.tell({ tone: 'done', text: `${file.name} was taken off.`, undo: sent.answer.id });
			}}
		/>
		<Talk
			card={{ key, history: page.history, told: page.told, watching: page.watching }}
			people={head.people}
			me={head.me}
			timeZone={head.timeZone}
			mayAsk={false}
			onpicture={works ? picture : undefined}
			onsay={(text, replyTo) => does('CommentPage', { ...of, text, ...(replyTo ? { replyTo } : {}) })}
			onchange={(comment, text) => does('ChangePageComment', { ...of, comment, text })}
			onwithdraw={(comment) => void ask('WithdrawPageComment', { ...of, comment })}
			onwatch={(watch) => void ask('WatchPage', { ...of, watch })}
		/>
	{/key}
</div>

<style>
	details {
		margin-top: 6px;
	}
	summary {
		color: var(--moss);
		cursor: pointer;
		min-height: max(26px, var(--touch, 0px));
	}
	li {
		padding: 5px 0;
		border-bottom: 1px dotted var(--rule);
		overflow-wrap: anywhere;
	}
	time {
		font-size: 12px;
		color: var(--faint);
	}
	p {
		padding-left: 12px;
		font-size: 0.9rem;
	}
	.went {
		color: var(--faint);
		text-decoration: line-through;
	}
	.undone {
		color: var(--faint);
	}
</style>
