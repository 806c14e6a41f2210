<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import type { TeamPage } from '$core/pages/people';
	import type { CommandInput } from '../../commands';
	import { count, momentWords } from '../words';
	import { ROLES, type Role, type Tell } from './tell';

	interface Props {
		team: TeamPage;
		tell: Tell;
		oninvite: (input: CommandInput<'Invite'>, words: string) => void;
	}
	let { team, tell, oninvite }: Props = $props();
	let role = $state<Role>('member');
	let title = $state('');
	let email = $state('');
	let several = $state(false);

	function invite(event: SubmitEvent) {
		event.preventDefault();
		const whom = several ? 'whoever has it' : 'one person';
		oninvite(
			{ team: team.id, role, title: title.trim(), several, ...(email.trim() ? { email: email.trim() } : {}) },
			`This link lets ${whom} into ${team.name} for seven days.`,
		);
		title = email = '';
	}
</script>

<section aria-labelledby="invitations">
	<h2 id="invitations">Invite by a link</h2>
	<form onsubmit={invite}>
		<div>
			<Label for="invite-role">Whoever takes it</Label>
			<Select id="invite-role" placeholder="" items={[...ROLES]} bind:value={role} />
		</div>
		<div>
			<Label for="invite-title">As, such as electrician</Label>
			<Input id="invite-title" maxlength={80} autocomplete="off" bind:value={title} />
		</div>
		<div>
			<Label for="invite-several">For</Label>
			<Select
				id="invite-several"
				placeholder=""
				items={[
					{ value: 'one', name: 'one person' },
					{ value: 'several', name: 'several people' },
				]}
				value={several ? 'several' : 'one'}
				onchange={(event: Event) =>
					(several = (event.currentTarget as HTMLSelectElement).value === 'several')}
			/>
		</div>
		{#if team.mail && !several}<div class="mail">
				<Label for="invite-email">Mail it to (or leave it empty)</Label>
				<Input id="invite-email" type="email" maxlength={200} autocomplete="off" bind:value={email} />
			</div>{/if}
		<button class="go">Make the link</button>
	</form>
	{#if team.invitations.length}
		<ul>
			{#each team.invitations as invitation (invitation.id)}
				<li>
					<span
						>{invitation.several ? 'Several people' : 'One person'}, {ROLES.find(
							(known) => known.value === invitation.role,
						)!.name}{invitation.title ? `, ${invitation.title}` : ''}
						<small
							>made by {invitation.by}{invitation.email ? `, mailed to ${invitation.email}` : ''}, until {momentWords(
								invitation.until.toISOString(),
								team.timeZone,
							)}{invitation.taken ? `, taken by ${count(invitation.taken, 'person', 'people')}` : ''}</small
						></span
					>
					<button
						type="button"
						class="link"
						onclick={() =>
							void tell(
								'RevokeInvitation',
								{ team: team.id, invitation: invitation.id },
								'The invitation is ended: its link lets nobody in.',
							)}>End it</button
					>
				</li>
			{/each}
		</ul>
	{/if}
</section>

<style>
	h2 {
		font-size: 1.15rem;
		margin: 22px 0 6px;
	}
	form {
		display: grid;
		grid-template-columns: 1fr 1.4fr 1.1fr auto;
		gap: 10px;
		align-items: end;
	}
	.mail {
		grid-column: 1 / 4;
		grid-row: 2;
	}
	ul {
		margin: 10px 0 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 12px;
		min-height: max(38px, var(--touch, 0px));
		border-top: 1px dotted var(--rule);
	}
	small {
		color: var(--soft);
	}
	@media (max-width: 560px) {
		form {
			grid-template-columns: 1fr;
		}
		.mail {
			grid-column: auto;
			grid-row: auto;
		}
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
