<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import AccountFields from '../AccountFields.svelte';
	import MadeLink from '../MadeLink.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const { account } = $derived(data);
</script>

<svelte:head><title>{account.name} · Grevan</title></svelte:head>
<p class="crumb mt-3"><a href="/settings/accounts">Accounts</a></p>
<h2 class="text-ink! text-[1.3rem]!">
	{account.name}, {account.role}{#if account.disabledAt}<span class="text-held">, closed</span>{/if}
</h2>
{#if form && 'link' in form && form.link}<div class="mt-3 max-w-[46rem]">
		<MadeLink link={form.link} name={account.name} />
	</div>{/if}
{#if form && 'done' in form}<div class="mt-3 max-w-[46rem]">
		<Notice kind="good"><p role="status">Done.</p></Notice>
	</div>{/if}
{#if refusal && !refusal.path}<div class="mt-3 max-w-[46rem]"><FormRefusal {refusal} /></div>{/if}
<div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-2">
	<form
		method="post"
		action="?/rename"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
		class="grid max-w-[24rem] content-start gap-3"
	>
		<AccountFields {refusal} of={account} />
		<button class="button justify-self-start">Keep these</button>
	</form>
	<div class="grid content-start gap-6">
		<form
			method="post"
			action="?/role"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
			class="flex flex-wrap items-end gap-3"
		>
			<Field id="role" label="Role">
				{#snippet children(field)}<select {...field} name="role">
						{#each data.roles as role (role)}<option selected={role === account.role}>{role}</option
							>{/each}
					</select>{/snippet}
			</Field>
			<button class="button">Change the role</button>
		</form>
		<p class="text-soft -mt-4 max-w-prose">
			A change of role, a closed account or a new password ends every session at once.
		</p>
		<span class="flex flex-wrap gap-3">
			<form method="post" action="?/link" use:enhance>
				<button class="button">Link for a new password</button>
			</form>
			<form method="post" action="?/endSessions" use:enhance>
				<button class="button" disabled={data.sessions.length === 0}
					>End {data.sessions.length === 1
						? 'the session'
						: `all ${data.sessions.length || ''} sessions`}</button
				>
			</form>
			{#if account.twoStep}<form method="post" action="?/endTwoStep" use:enhance>
					<button class="button">Authenticator lost: turn two-step off</button>
				</form>{/if}
		</span>
		{#if account.disabledAt}
			<form method="post" action="?/open" use:enhance>
				<button class="button">Open it again</button>
			</form>
		{:else}
			<form method="post" action="?/close" use:enhance class="flex flex-wrap items-end gap-3">
				<PlainField
					id="why"
					label="Why it is closed"
					name="why"
					required
					maxlength={300}
					width="w-72"
					refusal={refusedAt(refusal, 'why')}
				/>
				<button class="button">Close the account</button>
			</form>
		{/if}
	</div>
</div>
<h2 class="text-ink! mt-8 text-[1.1rem]!">What became of it</h2>
<HistoryList lines={data.lines} />
