<script lang="ts">
	import WearerForm from '$lib/ui/people/WearerForm.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
</script>

<svelte:head><title>New wearer · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/people">People</a></p>
<h1>New wearer</h1>
<div class="mt-4">
	<WearerForm
		wearer={null}
		placeIds={[]}
		places={data.allPlaces}
		accounts={data.accounts}
		{refusal}
	/>
</div>
