<script lang="ts">
	import type { MemberView, TeamPage } from '$core/pages/people';
	import type { CommandInput } from '../../commands';
	import NameTag from '../board/NameTag.svelte';
	import { count } from '../words';
	import { ROLES, type Role, type Tell } from './tell';

	interface Props {
		team: TeamPage;
		lead: boolean;
		tell: Tell;
		onreset: (input: CommandInput<'MakeReset'>, words: string) => void;
	}
	let { team, lead, tell, onreset }: Props = $props();
	const here = $derived(team.people.filter((person) => !person.gone));
	const gone = $derived(team.people.filter((person) => person.gone));
	/** The one who is asked about: whether they leave. */
	let leaving = $state('');

	const change = (person: MemberView, what: { role?: Role; title?: string }) =>
		tell(
			'ChangeMember',
			{ team: team.id, person: person.id, ...what },
			`What ${person.name} is in the team is kept.`,
		);
	const words = (role: string) => ROLES.find((known) => known.value === role)!.name;
</script>

<section aria-labelledby="members">
	<h2 id="members">People</h2>
	<ul>
		{#each here as person, seed (person.id)}
			<li>
				<NameTag {person} {seed} />
				<span class="who"
					><b>{person.name}</b>{person.id === team.me ? ' (you)' : ''}
					{#if person.email}<small>{person.email}</small>{/if}</span
				>
				{#if lead}
					<input
						class="title"
						aria-label="Title of {person.name}"
						placeholder="title"
						maxlength="80"
						value={person.title}
						onchange={(event) => void change(person, { title: event.currentTarget.value })}
					/>
					<select
						aria-label="What {person.name} may do"
						value={person.role}
						onchange={async (event) => {
							const select = event.currentTarget;
							const sent = await change(person, { role: select.value as Role });
							if (!sent.ok) select.value = person.role;
						}}
					>
						{#each ROLES as role (role.value)}<option value={role.value}>{role.name}</option>{/each}
					</select>
					<span class="acts">
						{#if person.id !== team.me}<button
								type="button"
								class="link"
								aria-label="New password for {person.name}"
								onclick={() =>
									onreset(
										{ team: team.id, person: person.id },
										`With this link ${person.name} sets a new password, once and within a day.`,
									)}>New password</button
							>{/if}
						<button
							type="button"
							class="link"
							aria-label="Leaves the team: {person.name}"
							aria-expanded={leaving === person.id}
							onclick={() => (leaving = leaving === person.id ? '' : person.id)}>Leaves</button
						>
					</span>
				{:else}<span class="title">{person.title}</span><span>{words(person.role)}</span>{/if}
			</li>
			{#if leaving === person.id}
				<li class="asked">
					{#if person.cards.length}
						<p>
							<b>{person.name} owns {count(person.cards.length, 'open card')}.</b> Give them to others first:
						</p>
						<p>
							{#each person.cards as card, i (card.key)}{#if i},
								{/if}<a class="link" href="/boards/{card.slug}?card={card.number}">{card.key} {card.title}</a
								>{/each}
						</p>
					{:else}
						<p>
							Cards, words, hours and history stay theirs; a running timer is stopped. They can come back.
						</p>
						<button
							type="button"
							class="go"
							onclick={() => {
								leaving = '';
								void tell(
									'RemoveMember',
									{ team: team.id, person: person.id },
									`${person.name} left the team.`,
								);
							}}>{person.name} leaves the team</button
						>
					{/if}
					<button type="button" class="plain" onclick={() => (leaving = '')}>Stays</button>
				</li>
			{/if}
		{/each}
	</ul>
	{#if gone.length}
		<h3>Left the team</h3>
		<ul>
			{#each gone as person, seed (person.id)}
				<li>
					<NameTag {person} {seed} />
					<span class="who">{person.name}</span>
					<span class="title">{person.title}</span>
					{#if lead}<button
							type="button"
							class="link"
							aria-label="Bring back {person.name}"
							onclick={() =>
								void tell(
									'BringBackMember',
									{ team: team.id, person: person.id, role: person.role },
									`${person.name} is back.`,
								)}>Bring back</button
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
</section>

<style>
	h2 {
		font-size: 1.15rem;
		margin: 12px 0 4px;
	}
	h3 {
		font-size: 1rem;
		margin: 14px 0 2px;
		color: var(--soft);
	}
	li {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 10px;
		min-height: max(42px, var(--touch, 0px));
		padding: 3px 0;
		border-top: 1px dotted var(--rule);
	}
	.who {
		flex: 1 1 180px;
		min-width: 0;
	}
	small {
		color: var(--soft);
	}
	.title {
		width: 150px;
	}
	input,
	select {
		font: inherit;
		color: inherit;
		background-color: transparent;
		border: 1px solid transparent;
		border-bottom-color: var(--rule);
		border-radius: 3px;
		padding: 3px 4px;
		min-height: max(30px, var(--touch, 0px));
	}
	select {
		padding-right: 26px;
	}
	input:hover,
	select:hover {
		border-color: var(--edge);
	}
	.acts {
		display: flex;
		gap: 12px;
		min-width: 150px;
		justify-content: flex-end;
	}
	.asked {
		padding: 6px 0 10px 36px;
		border-top: 0;
	}
	.asked p {
		flex-basis: 100%;
		margin: 0;
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
