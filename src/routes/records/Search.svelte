<script lang="ts">
	/** What is looked for in the record. */
	import DayField from '$lib/ui/form/DayField.svelte';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();
	const { search } = $derived(data);
</script>

<form method="get" class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
	<label
		><span class="label">Item</span><input
			name="tag"
			value={search.tag ?? ''}
			maxlength="60"
			autocomplete="off"
			class="w-36 font-mono"
			placeholder="tag"
		/></label
	>
	<label
		><span class="label">Who</span><select name="who" value={search.who ?? ''}
			><option value="">anybody</option>{#each data.people as one (one.id)}<option value={one.id}
					>{one.name}</option
				>{/each}</select
		></label
	>
	<label
		><span class="label">What</span><select name="group" value={search.group ?? ''}
			><option value="">everything</option>{#each data.groups as group (group)}<option
					>{group}</option
				>{/each}</select
		></label
	>
	<label
		><span class="label">Place</span><select name="place" value={search.place ?? ''}
			><option value="">anywhere</option>{#each data.places as one (one.id)}<option value={one.id}
					>{one.name}</option
				>{/each}</select
		></label
	>
	<DayField name="from" label="From" value={search.from} />
	<DayField name="to" label="To" value={search.to} />
	<button class="button primary">Show</button>
	{#if data.query}<a class="linkish min-h-11 content-center" href="/records">Everything</a>{/if}
</form>
