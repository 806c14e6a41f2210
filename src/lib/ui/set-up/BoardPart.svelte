<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { SWITCHES, type Switch } from '$core/flow/set-up';
	import type { SetUpPage } from '$core/pages/settings';
	import type { CommandInput } from '../../commands';
	import { list } from '../words';
	import type { BoardState } from '../board/board-state.svelte';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const first = untrack(() => ({ ...board.head, ...setUp }));
	let template = $state('');
	let sentence = $state('');
	let problem = $state('');
	const people = $derived(head.people.filter((person) => !person.gone));
	const named = $derived(setUp.visibleTo === 'named' || setUp.changedBy === 'named');
	const UNITS = [
		{ value: 'hours', name: 'in hours' },
		{ value: 'points', name: 'in points' },
		{ value: 'none', name: 'not at all' },
	];
	const SEES = [
		{ value: 'team', name: `everyone in ${first.team}` },
		{ value: 'named', name: 'named people of the team only' },
		{ value: 'signed-in', name: 'everyone who is signed in' },
	];
	const CHANGES = [
		{ value: 'team', name: 'leads and members of the team' },
		{ value: 'named', name: 'leads, and of the members only named ones' },
	];
	const PARTS: Record<Switch, string> = {
		hours: 'Hours worked and the timer',
		lanes: 'Lanes',
		classes: 'Classes of service',
		dates: 'Start and due dates',
		types: 'Kinds of card',
	};
	type Change = Omit<CommandInput<'ChangeBoard'>, 'board'>;

	async function change(what: Change, done: string): Promise<boolean> {
		const sent = await board.ask('ChangeBoard', { board: head.id, ...what });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok)
			board.tell({ tone: 'done', text: done, undo: sent.answer.undoable ? sent.answer.id : undefined });
		return sent.ok;
	}
	async function text(field: 'name' | 'key', input: HTMLInputElement) {
		const value = field === 'key' ? input.value.trim().toUpperCase() : input.value.trim();
		if (!value || value === head[field]) return void (input.value = head[field]);
		const said =
			field === 'key'
				? `Cards are called ${value}-… now, and answer to ${head.key}-… too.`
				: `The board is called ${value}.`;
		if (!(await change({ [field]: value }, said))) input.value = head[field];
	}
	const name = (person: string, may: 'sees' | 'changes' | null) =>
		change(
			{
				people: [
					...setUp.named.filter((one) => one.person !== person),
					...(may ? [{ person, changes: may === 'changes' }] : []),
				],
			},
			'Who may see and change the board is kept.',
		);
	const of = (event: Event) => (event.currentTarget as HTMLSelectElement).value;

	async function keepTemplate(event: SubmitEvent) {
		event.preventDefault();
		const sent = await board.ask('KeepTemplate', {
			board: head.id,
			name: template.trim(),
			sentence: sentence.trim(),
		});
		problem = sent.ok ? '' : sent.refusal.title;
		if (!sent.ok) return;
		board.tell({ tone: 'done', text: `${template.trim()} is a template of the team.` });
		[template, sentence] = ['', ''];
	}
	async function away() {
		if (await change({ away: !head.away }, head.away ? `${head.name} is back.` : `${head.name} is put away.`))
			if (!head.away) await goto(`/teams/${head.teamId}`);
	}
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-board">
	<h2 id="set-board">The board itself</h2>
	<div class="pair">
		<div>
			<Label for="set-name">Name</Label>
			<Input
				id="set-name"
				maxlength={80}
				value={head.name}
				onchange={(event: Event) => void text('name', event.currentTarget as HTMLInputElement)}
			/>
		</div>
		<div>
			<Label for="set-key">Key; cards go on answering to the old one</Label>
			<Input
				id="set-key"
				maxlength={10}
				value={head.key}
				onchange={(event: Event) => void text('key', event.currentTarget as HTMLInputElement)}
			/>
		</div>
		<div>
			<Label for="set-unit">Cards are sized</Label>
			<Select
				id="set-unit"
				placeholder=""
				items={UNITS}
				value={head.unit}
				onchange={(event: Event) =>
					void change({ unit: of(event) as 'hours' }, 'What cards are sized in is kept.')}
			/>
		</div>
	</div>
	<div class="pair">
		<div>
			<Label for="set-hand">Cards that one person may have in hand; empty for any number</Label>
			<Input
				id="set-hand"
				inputmode="numeric"
				maxlength={2}
				value={String(head.personLimit ?? '')}
				onchange={(event: Event) => {
					const input = event.currentTarget as HTMLInputElement;
					const limit = input.value.trim() === '' ? null : Number(input.value);
					if (Number.isNaN(limit)) {
						problem = 'How many cards a person may have in hand is a whole number, or empty for any.';
						return void (input.value = String(head.personLimit ?? ''));
					}
					void change(
						{ personLimit: limit },
						limit === null ? 'A person may have any number in hand.' : `A person may have ${limit} in hand.`,
					);
				}}
			/>
		</div>
		{#if head.personLimit !== null}<div>
				<Label for="set-hand-mode">One more than that</Label>
				<Select
					id="set-hand-mode"
					placeholder=""
					items={[
						{ value: 'advise', name: 'is let in, and said so' },
						{ value: 'hold', name: 'is held until a reason is given' },
					]}
					value={head.personMode}
					onchange={(event: Event) =>
						void change(
							{ personMode: of(event) as 'hold' },
							'What happens over the limit of a person is kept.',
						)}
				/>
			</div>{/if}
		<div>
			<Label for="set-lines">States of checklist lines, in their order</Label>
			<Input
				id="set-lines"
				maxlength={400}
				placeholder="needed, ordered, here, fitted"
				value={head.lineStates.join(', ')}
				onchange={(event: Event) => {
					const states = [
						...new Set(
							of(event)
								.split(/[;,]/)
								.map((name) => name.trim())
								.filter(Boolean),
						),
					];
					void change(
						{ lineStates: states },
						states.length
							? `Lines of checklists are ${list(states)}.`
							: 'Lines of checklists are ticked or not, and nothing else.',
					);
				}}
			/>
		</div>
	</div>
	<p class="soft">
		What it is for stands on <a class="link" href="/boards/{head.slug}/about">its own page</a>, and is written
		there.
	</p>
</section>
<section aria-labelledby="set-who">
	<h2 id="set-who">Who</h2>
	<div class="pair">
		<div>
			<Label for="set-sees">It is seen by</Label>
			<Select
				id="set-sees"
				placeholder=""
				items={SEES}
				value={setUp.visibleTo}
				onchange={(event: Event) =>
					void change({ visibleTo: of(event) as 'team' }, 'Who sees the board is kept.')}
			/>
		</div>
		<div>
			<Label for="set-changes-it">It is changed by</Label>
			<Select
				id="set-changes-it"
				placeholder=""
				items={CHANGES}
				value={setUp.changedBy}
				onchange={(event: Event) =>
					void change({ changedBy: of(event) as 'team' }, 'Who changes the board is kept.')}
			/>
		</div>
	</div>
	{#if named}
		<ul>
			{#each people as person (person.id)}
				{@const known = setUp.named.find((one) => one.person === person.id)}
				<li>
					<span>{person.name}</span>
					{#if person.role === 'lead'}<small>leads the team: sees and changes everything</small>{:else}<select
							aria-label="What {person.name} may do on this board"
							value={known ? (known.changes ? 'changes' : 'sees') : ''}
							onchange={(event) => void name(person.id, (event.currentTarget.value || null) as 'sees' | null)}
						>
							<option value="">not named</option>
							<option value="sees">sees it</option>
							<option value="changes">sees and changes it</option>
						</select>{/if}
				</li>
			{/each}
		</ul>
	{/if}
	<p class="soft">
		People come into the team, and leave it, on <a class="link" href="/teams/{head.teamId}?from={head.slug}"
			>its own page</a
		>.
	</p>
</section>
<section aria-labelledby="set-off">
	<h2 id="set-off">What it uses</h2>
	{#each SWITCHES as part (part)}
		<label class="tick"
			><input
				type="checkbox"
				checked={!head.off.includes(part)}
				onchange={(event) =>
					void change(
						event.currentTarget.checked ? { on: [part] } : { off: [part] },
						event.currentTarget.checked
							? `${PARTS[part]} are shown.`
							: `${PARTS[part]} leave every screen; nothing of them is lost.`,
					)}
			/>
			{PARTS[part]}</label
		>
	{/each}
</section>
<section aria-labelledby="set-template">
	<h2 id="set-template">Keep it as a template</h2>
	<form onsubmit={keepTemplate} class="pair">
		<div>
			<Label for="template-name">Named by the work that it is for</Label>
			<Input id="template-name" required maxlength={80} autocomplete="off" bind:value={template} />
		</div>
		<div>
			<Label for="template-sentence">How that work goes, in a sentence</Label>
			<Input id="template-sentence" maxlength={200} autocomplete="off" bind:value={sentence} />
		</div>
		<button class="plain">Keep the template</button>
	</form>
</section>
<section aria-labelledby="set-away">
	<h2 id="set-away">{head.away ? 'Bring it back' : 'Put it away'}</h2>
	<p class="soft">
		{head.away
			? 'It is put away: it stands in no list, and nothing on it changes.'
			: 'It leaves every list, and nothing on it changes until it is brought back. Its cards and figures stay.'}
	</p>
	<button type="button" class="plain" onclick={() => void away()}
		>{head.away ? 'Bring the board back' : 'Put the board away'}</button
	>
</section>

<style>
	.pair {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
		gap: 10px 16px;
		align-items: end;
		margin-bottom: 10px;
	}
	.pair .plain {
		justify-self: start;
	}
	ul {
		margin: 0 0 8px;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 12px;
		min-height: max(38px, var(--touch, 0px));
		border-bottom: 1px dotted var(--rule);
	}
	li select {
		font: inherit;
		color: inherit;
		background-color: transparent;
		border: 0;
		border-bottom: 1px solid var(--rule);
		padding: 2px 26px 2px 4px;
	}
	.tick {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: max(32px, var(--touch, 0px));
	}
	.tick input {
		width: 18px;
		height: 18px;
		accent-color: var(--moss);
		color: var(--moss);
		border: 1px solid var(--edge);
		border-radius: 2px;
	}
	small {
		color: var(--soft);
	}
	li select,
	.link {
		min-height: var(--touch, auto);
	}
</style>
