<script lang="ts">
	import BasicsForm from '$lib/ui/site/BasicsForm.svelte';
	import SetUpSteps from '$lib/ui/site/SetUpSteps.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Set-up: site · Grevan</title></svelte:head>
<SetUpSteps />
<h1 class="mt-4">Your site and its rules</h1>
<p class="mt-1 max-w-[40rem]">
	All of it can be changed later, under Settings; what changed stands in the log with old and new.
</p>
<BasicsForm
	filled={data.filled}
	version={data.version}
	timeZones={data.timeZones}
	button="Keep, and go on to the places"
/>
