<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import type { TableColumn } from '$lib/ui/table/table';
	import Table from '$lib/ui/table/Table.svelte';
	import { siteMoment } from '$lib/ui/time/moments';
	import AccountFields from './AccountFields.svelte';
	import MadeLink from './MadeLink.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	type Account = (typeof data.accounts)[number];
	const seen = (account: Account) =>
		account.open
			? `${account.open === 1 ? 'a session' : `${account.open} sessions`}, used ${account.seenAt ? siteMoment(account.seenAt) : ''}`
			: 'not signed in';
	const columns: TableColumn<Account>[] = [
		{ key: 'who', head: 'Who', value: ({ name }) => name, cell: whoCell, sorts: true },
		{ key: 'role', head: 'Role', value: ({ role }) => role, cell: roleCell, sorts: true },
		{
			key: 'with',
			head: 'Gets in with',
			value: (account) =>
				`${account.hasPassword ? 'password' : 'nothing yet: link not used'}${account.twoStep ? ' and authenticator' : ''}`
		},
		{ key: 'seen', head: 'Last here', value: seen }
	];
</script>

{#snippet whoCell(account: Account)}<a
		class="linkish inline-flex min-h-9 items-center"
		href="/settings/accounts/{account.id}"><b>{account.name}</b></a
	>
	<span class="font-mono">{account.initials}</span>
	<div class="pb-2 text-[0.9rem] text-soft">{account.email}</div>{/snippet}
{#snippet roleCell(account: Account)}{account.role}{#if account.disabledAt}<div
			class="font-semibold text-held"
		>
			closed
		</div>{/if}{/snippet}
<svelte:head><title>Accounts · Grevan</title></svelte:head>
{#if form && 'link' in form && form.link}<div class="mt-4 max-w-[46rem]">
		<MadeLink link={form.link} name={form.name ?? ''} />
	</div>{/if}
<div class="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-[1fr_20rem]">
	<Table
		label="Accounts"
		rows={data.accounts}
		{columns}
		rowId={(account) => account.id}
		href={(account) => `/settings/accounts/${account.id}`}
		width="min-w-[36rem]"
	/>
	<form method="post" action="?/make" use:enhance class="grid content-start gap-3">
		<h2 class="text-ink! text-[1.1rem]!">New account</h2>
		{#if refusal && !refusal.path}<FormRefusal {refusal} />{/if}

		<AccountFields {refusal} />
		<Field id="role" label="Role" refusal={refusedAt(refusal, 'role')}>
			{#snippet children(field)}<select {...field} name="role" class="w-full">
					{#each data.roles as role (role)}<option selected={role === 'technician'}>{role}</option
						>{/each}
				</select>{/snippet}
		</Field>
		<button class="button primary justify-self-start">Make the account</button>
	</form>
</div>
