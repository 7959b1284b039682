<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import { siteMoment } from '$lib/ui/time/moments';
	import AccountFields from './AccountFields.svelte';
	import MadeLink from './MadeLink.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
</script>

<svelte:head><title>Accounts · Grevan</title></svelte:head>
{#if form && 'link' in form && form.link}<div class="mt-4 max-w-[46rem]">
		<MadeLink link={form.link} name={form.name ?? ''} />
	</div>{/if}
<div class="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-[1fr_20rem]">
	<div class="overflow-x-auto">
		<table class="w-full">
			<thead>
				<tr class="text-soft text-left text-[0.9rem]">
					<th class="py-1 pr-4 font-semibold">Who</th>
					<th class="py-1 pr-4 font-semibold">Role</th>
					<th class="py-1 pr-4 font-semibold">Gets in with</th>
					<th class="py-1 font-semibold">Last here</th>
				</tr>
			</thead>
			<tbody>
				{#each data.accounts as account (account.id)}
					<tr class="rowline align-baseline">
						<td class="py-2 pr-4">
							<a
								class="linkish inline-flex min-h-9 items-center"
								href="/settings/accounts/{account.id}"><b>{account.name}</b></a
							>
							<span class="font-mono">{account.initials}</span>
							<div class="text-soft text-[0.9rem]">{account.email}</div>
						</td>
						<td class="py-2 pr-4"
							>{account.role}{#if account.disabledAt}<div class="font-semibold text-held">
									closed
								</div>{/if}</td
						>
						<td class="py-2 pr-4"
							>{account.hasPassword ? 'password' : 'nothing yet: link not used'}{account.twoStep
								? ' and authenticator'
								: ''}</td
						>
						<td class="py-2"
							>{account.open
								? `${account.open === 1 ? 'a session' : `${account.open} sessions`}, used ${account.seenAt ? siteMoment(account.seenAt) : ''}`
								: 'not signed in'}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
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
