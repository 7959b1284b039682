<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import SetUpSteps from '$lib/ui/site/SetUpSteps.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const TABLES = [
		{
			kind: 'items',
			href: '/items/import',
			name: 'The register',
			what: 'A row for each mask, set, suit and cylinder, by its tag.'
		},
		{
			kind: 'filters',
			href: '/filters/import',
			name: 'Filters',
			what: 'A row for each lot of sealed packs.'
		},
		{
			kind: 'parts',
			href: '/faults/parts',
			name: 'Spare parts',
			what: 'A row for each lot; a repair names the lot that it used.'
		}
	] as const;
</script>

<svelte:head><title>Set-up: register · Grevan</title></svelte:head>
<SetUpSteps />
<h1 class="mt-4">Bring in what you have</h1>
<p class="mt-1 max-w-[44rem]">
	Each from a table: get the empty one, fill it in with any spreadsheet, and look at what it would
	do before it is taken in. A whole table can be taken back. Nothing here has to be done now: Today
	says what is still missing.
</p>
<FormRefusal {refusal} />
<ul class="mt-4 max-w-[52rem]">
	{#each TABLES as table (table.kind)}
		<li class="rowline flex min-h-16 flex-wrap items-center gap-x-4 gap-y-2 py-2">
			<span class="min-w-[14rem] flex-1"
				><b>{table.name}</b>{#if data.has[table.kind]}<span class="text-soft">
						· some are in</span
					>{/if}<br /><span class="text-soft">{table.what}</span></span
			>
			<a class="button" href="/tables/{table.kind}" download>Empty table</a>
			<a class="button" href={table.href}>Take it in</a>
		</li>
	{/each}
</ul>
{#if data.ended}
	<p class="mt-4"><a class="button primary" href="/">To Today</a></p>
{:else}
	<form method="post" class="mt-6 grid max-w-[44rem] gap-3" use:enhance>
		<label class="flex min-h-11 items-start gap-3"
			><input type="checkbox" name="twoStep" checked class="mt-0.5 shrink-0" /><span
				>Whoever keeps the accounts signs in with a code of an authenticator too.
				<span class="text-soft"
					>It is set up next, and needs a telephone with such an app at hand. Without it a password
					alone opens everything.</span
				></span
			></label
		>
		<button class="button primary justify-self-start">End the set-up, and go to Today</button>
	</form>
{/if}
