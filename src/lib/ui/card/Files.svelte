<script lang="ts">
	import { SvelteMap } from 'svelte/reactivity';
	import type { Attachment } from '$core/pages/card';
	import { figure, momentWords } from '../words';
	import { sendFile, type Sending } from './upload';

	interface Props {
		files: readonly Attachment[];
		timeZone: string;
		mayEdit: boolean;
		/** Puts files that were sent on the card; gives whether they are there. */
		onattach: (files: { upload: string; name: string }[]) => Promise<boolean>;
		onremove: (file: Attachment) => void;
		/** Which of its pictures the card shows; null for none. Left out where none stands in front. */
		onfront?: (file: Attachment | null) => void;
	}
	/** The files of a card or a page: dropped, pasted or picked, several at once; pictures are shown, others are downloaded. */
	let { files, timeZone, mayEdit, onattach, onremove, onfront }: Props = $props();

	interface Coming {
		name: string;
		share: number;
		problem: string;
		sending: Sending;
	}
	const coming = new SvelteMap<number, Coming>();
	let next = 0;
	let over = $state(false);
	/** Pictures that turned out not to be any. */
	let broken = $state.raw<ReadonlySet<string>>(new Set());
	const shown = (file: Attachment) =>
		file.media?.startsWith('image/') && SHOWN.test(file.media) && !broken.has(file.id);
	const SHOWN = /^image\/(png|jpeg|gif|webp|avif)$/;

	const size = (bytes: number) =>
		bytes < 1000
			? `${bytes} B`
			: bytes < 1_000_000
				? `${figure(bytes / 1000, 0)} kB`
				: `${figure(bytes / 1_000_000)} MB`;

	/** Sends files beside each other; each is put there as it comes through. */
	export async function add(list: Iterable<File>): Promise<void> {
		await Promise.all([...list].map(one));
	}
	async function one(file: File): Promise<void> {
		const at = next++;
		const name = file.name || 'pasted.png';
		const sending = sendFile(file, (share) => {
			const known = coming.get(at);
			if (known) coming.set(at, { ...known, share });
		});
		coming.set(at, { name, share: 0, problem: '', sending });
		const sent = await sending.done;
		if (!sent) return void coming.delete(at);
		if (!sent.ok) return void coming.set(at, { ...coming.get(at)!, problem: sent.refusal.title });
		await onattach([{ upload: sent.upload, name }]);
		coming.delete(at);
	}
	function drop(event: DragEvent): void {
		over = false;
		if (!mayEdit || !event.dataTransfer?.files.length) return;
		event.preventDefault();
		void add(event.dataTransfer.files);
	}
</script>

<h3>
	Files {#if files.length}<small>{files.length}</small>{/if}
</h3>
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
	class="files"
	class:over
	ondragover={(event) => {
		if (!mayEdit || !event.dataTransfer?.types.includes('Files')) return;
		event.preventDefault();
		over = true;
	}}
	ondragleave={() => (over = false)}
	ondrop={drop}
>
	<ul>
		{#each files as file (file.id)}
			<li>
				{#if shown(file)}<a
						href="/api/files/{file.id}"
						target="_blank"
						rel="noopener"
						aria-label="Look at {file.name}"
						><img
							src="/api/files/{file.id}"
							alt=""
							loading="lazy"
							onerror={() => (broken = new Set([...broken, file.id]))}
						/></a
					>{/if}
				<span class="about">
					<a href="/api/files/{file.id}" download={file.name}>{file.name}</a>
					<small>{size(file.bytes)}, {file.by}, {momentWords(file.at, timeZone)}</small>
				</span>
				{#if mayEdit}
					{#if onfront && shown(file)}<button
							type="button"
							class="link"
							aria-pressed={file.front}
							onclick={() => onfront(file.front ? null : file)}
							>{file.front ? 'In front' : 'To the front'}</button
						>{/if}
					<button type="button" class="link" aria-label="Take off {file.name}" onclick={() => onremove(file)}
						>×</button
					>
				{/if}
			</li>
		{/each}
		{#each [...coming] as [at, { name, share, problem, sending }] (at)}
			<li>
				<span class="about">
					{name}
					{#if problem}<small class="warn" role="alert">{problem}</small>
					{:else}<progress max="1" value={share} aria-label="{name} is sent"></progress>{/if}
				</span>
				<button
					type="button"
					class="link"
					onclick={() => {
						if (!problem) sending.cancel();
						coming.delete(at);
					}}>{problem ? 'Put away' : 'Stop'}</button
				>
			</li>
		{/each}
	</ul>
	{#if mayEdit}
		<label class="pick"
			><input
				type="file"
				multiple
				onchange={(event) => {
					const input = event.currentTarget;
					void add([...(input.files ?? [])]);
					input.value = '';
				}}
			/><span>Put files here: drop, paste or <u>pick them</u></span></label
		>
	{:else if !files.length}<p class="soft">None.</p>{/if}
</div>

<style>
	li {
		display: flex;
		gap: 10px;
		align-items: center;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
	}
	img {
		display: block;
		width: 76px;
		height: 54px;
		object-fit: cover;
		border: 1px solid var(--rule);
		border-radius: 2px;
	}
	.about {
		flex: 1;
		min-width: 0;
		overflow-wrap: anywhere;
	}
	.about a {
		display: inline-block;
		min-height: var(--touch, auto);
		align-content: center;
	}
	.about small {
		display: block;
	}
	progress {
		width: 100%;
		height: 6px;
		accent-color: var(--moss);
	}
	.pick {
		position: relative;
		display: block;
		margin-top: 6px;
		padding: 9px;
		border: 1px dashed var(--edge);
		border-radius: 3px;
		color: var(--soft);
		text-align: center;
		cursor: pointer;
	}
	.pick u {
		color: var(--moss);
	}
	.pick:focus-within,
	.over .pick {
		outline: 2px solid var(--moss);
		outline-offset: 1px;
	}
	.pick input {
		position: absolute;
		width: 1px;
		height: 1px;
		opacity: 0;
	}
	.soft {
		margin: 0;
	}
</style>
