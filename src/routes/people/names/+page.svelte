<script lang="ts">
	/** Names that were typed before there was a register, and whom they mean; the rows that carry them stay. */
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { PEOPLE_LINKS } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const open = $derived(data.names.filter(({ wearerId }) => !wearerId).length);
	const times = (n: number, one: string, many: string) => (n ? `${n} ${n === 1 ? one : many}` : '');
</script>

<svelte:head><title>Typed names · Grevan</title></svelte:head>
<h1>Typed names</h1>
<div class="mt-2"><SectionLinks label="People" links={PEOPLE_LINKS} /></div>
<p class="mt-3 max-w-[46rem]">
	Names that stand on the entry board and at seal checks. Say whom each means: their uses and checks
	then stand on that person’s page. The rows themselves are never rewritten.
</p>
{#if form && 'matched' in form}<div class="mt-3">
		<Notice kind="good"><p role="status">{form.matched} kept.</p></Notice>
	</div>{/if}
{#if refusal}<div class="mt-3"><FormRefusal {refusal} /></div>{/if}
{#if data.names.length === 0}<p class="mt-4">
		No name was typed yet: they come from the entry board and from seal checks.
	</p>
{:else}
	<p class="mt-3 font-semibold" role="status">{open} of {data.names.length} not matched yet</p>
	<form method="post" class="mt-2 max-w-[52rem]" use:enhance>
		{#each data.names as one (one.key)}
			<div
				class="rowline grid items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[1fr_12rem_minmax(0,18rem)]"
			>
				<b class="font-semibold">{one.erased ? 'erased' : one.name}</b>
				<span class="text-soft"
					>{[
						times(one.entries, 'entry', 'entries'),
						times(one.sealChecks, 'seal check', 'seal checks')
					]
						.filter(Boolean)
						.join(', ')}</span
				>
				{#if one.erased}<span class="text-soft">who it was is erased</span>
				{:else}
					<input type="hidden" name="names[]" value={one.name} />
					<select
						name="wearers[]"
						class="w-full"
						disabled={!data.mayMatch}
						aria-label="Whom “{one.name}” means"
						value={one.wearerId ?? one.same ?? ''}
					>
						<option value="">nobody of the register</option>
						{#each data.wearers as who (who.id)}<option value={who.id}
								>{who.name}, {who.number}{who.id === one.same ? ' (called so)' : ''}</option
							>{/each}
					</select>
				{/if}
			</div>
		{/each}
		{#if data.mayMatch}<button class="button primary mt-4">Keep these matches</button>{:else}<p
				class="text-soft mt-3"
			>
				A supervisor matches names.
			</p>{/if}
	</form>
{/if}
