<script lang="ts">
	import { SvelteMap } from 'svelte/reactivity';
	import { FAMILIES } from '$core/data/families';
	import { MODEL_TEMPLATES } from '$core/data/model-templates';
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import SetUpSteps from '$lib/ui/site/SetUpSteps.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const chosen = new SvelteMap<string, { name: string; maker: string }>();
	const families = FAMILIES.filter(({ family }) =>
		MODEL_TEMPLATES.some((template) => template.family === family)
	);
	const taken = $derived(
		JSON.stringify([...chosen].map(([template, given]) => ({ template, ...given })))
	);
	function toggle(key: string, name: string) {
		if (!chosen.delete(key)) chosen.set(key, { name, maker: '' });
	}
	function write(key: string, part: { name?: string; maker?: string }) {
		const held = chosen.get(key);
		if (held) chosen.set(key, { ...held, ...part });
	}
</script>

<svelte:head><title>Set-up: equipment · Grevan</title></svelte:head>
<SetUpSteps />
<h1 class="mt-4">What the site has</h1>
<p class="mt-1 max-w-[44rem]">
	Tick each kind of construction that you have and give it the name that stands on it. Procedures,
	donning cards and limits come with it; what its maker says otherwise is written at the model
	later. Another of the same construction is added under Items, Models.
</p>
{#if form && 'added' in form}<div class="mt-4 max-w-[44rem]">
		<Notice kind="good"><p role="status">{form.added} models added.</p></Notice>
	</div>{/if}
<FormRefusal {refusal} />
<div class="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<form
		method="post"
		class="grid gap-x-10 gap-y-4"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') chosen.clear();
			}}
	>
		<input type="hidden" name="taken" value={taken} />
		{#each families as { family, plural } (family)}
			<fieldset>
				<legend class="label">{plural}</legend>
				{#each MODEL_TEMPLATES.filter((t) => t.family === family) as template (template.key)}
					{@const given = chosen.get(template.key)}
					<div class="rowline py-1">
						<label class="flex min-h-11 items-center gap-3"
							><input
								type="checkbox"
								checked={given !== undefined}
								onchange={() => toggle(template.key, template.name)}
							/><span>{template.name}</span></label
						>
						{#if given}<div class="grid gap-3 pb-2 pl-9 sm:grid-cols-2">
								<label
									><span class="label">Its name here</span><input
										class="w-full"
										value={given.name}
										oninput={(e) => write(template.key, { name: e.currentTarget.value })}
									/></label
								>
								<label
									><span class="label">Maker</span><input
										class="w-full"
										value={given.maker}
										placeholder="not stated"
										oninput={(e) => write(template.key, { maker: e.currentTarget.value })}
									/></label
								>
							</div>{/if}
					</div>
				{/each}
			</fieldset>
		{/each}
		<button class="button primary justify-self-start" disabled={chosen.size === 0}
			>{chosen.size ? `Add ${chosen.size}` : 'Tick what you have'}</button
		>
	</form>
	<section aria-labelledby="models">
		<h2 id="models">Models so far</h2>
		{#if data.models.length === 0}<p class="mt-1">None yet.</p>{/if}
		<ul>
			{#each data.models as model (model.id)}<li class="rowline min-h-11 content-center">
					<a class="linkish" href="/items/models/{model.id}">{model.name}</a>
					<span class="text-soft block">{model.maker}</span>
				</li>{/each}
		</ul>
		{#if data.models.length}<a class="button primary mt-4" href="/set-up/register"
				>Go on to the register</a
			>{/if}
	</section>
</div>
