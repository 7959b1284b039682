<script lang="ts">
	import BasicsForm from '$lib/ui/site/BasicsForm.svelte';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import SetUpSteps from '$lib/ui/site/SetUpSteps.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
</script>

<svelte:head><title>Set-up: site · Grevan</title></svelte:head>
<SetUpSteps />
<h1 class="mt-4">Your site and its rules</h1>
<p class="mt-1 max-w-[40rem]">
	All of it can be changed later, under Settings; what changed stands in the log with old and new.
</p>
{#key data.version}<BasicsForm
		filled={data.filled}
		version={data.version}
		timeZones={data.timeZones}
		button="Keep, and go on to the places"
	/>{/key}
<section aria-labelledby="copy" class="mt-8 max-w-[40rem] border-t border-rule pt-4">
	<h2 id="copy">Or begin with the settings of another site</h2>
	<p class="mt-1">
		The other one gives them as a file, under Settings, Site. Its rules, places, models, intervals,
		calendar and test houses come here; the name is yours.
	</p>
	{#if form && 'copied' in form}<div class="mt-2">
			<Notice kind="good"
				><p role="status">Taken. Name the site above, and look through the other steps.</p></Notice
			>
		</div>{/if}
	<div class="mt-2"><FormRefusal {refusal} /></div>
	<form
		method="post"
		action="?/copy"
		enctype="multipart/form-data"
		class="mt-2 flex flex-wrap items-end gap-3"
		use:enhance
	>
		<label
			><span class="label">Settings file</span><input
				type="file"
				name="file"
				accept=".json,application/json"
				class="w-full py-2"
			/></label
		>
		<button class="button">Take these settings</button>
	</form>
</section>
