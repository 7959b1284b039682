<script lang="ts">
	import { SCHOOL_QUESTIONS, SETTLED_QUESTIONS } from '$core/site/schools';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
</script>

<svelte:head><title>Schools · Grevan</title></svelte:head>
<p class="mt-4 max-w-[44rem]">
	Good practitioners differ here. What stands first is the stricter way, and the one that a site has
	unless it chooses.
</p>
<form
	method="post"
	class="mt-4 grid max-w-[44rem] gap-6"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
>
	<input type="hidden" name="version" value={data.site.version} />
	{#if form && 'kept' in form}<Notice kind="good"><p role="status">Kept.</p></Notice>{/if}
	<FormRefusal {refusal} />
	{#each SCHOOL_QUESTIONS as { key, question, schools } (key)}
		<fieldset>
			<legend class="label text-[1.05rem]!">{question}</legend>
			{#each schools as school (school.key)}
				<label class="rowline flex min-h-14 items-start gap-3 py-2"
					><input
						type="radio"
						name={key}
						value={school.key}
						checked={data.site[key] === school.key}
						class="mt-1 shrink-0"
					/><span
						><b class="first-letter:uppercase inline-block">{school.name}</b><br /><span
							class="text-soft">{school.does}</span
						></span
					></label
				>
			{/each}
		</fieldset>
	{/each}
	<button class="button primary justify-self-start">Keep these</button>
</form>
<section aria-labelledby="elsewhere" class="mt-8 max-w-[44rem]">
	<h2 id="elsewhere">Answered elsewhere</h2>
	<dl>
		{#each SETTLED_QUESTIONS as { question, where } (question)}<div class="rowline py-2">
				<dt class="font-semibold">{question}</dt>
				<dd class="text-soft">{where}</dd>
			</div>{/each}
	</dl>
</section>
