<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>Calculation interface · Grevan</title></svelte:head>
<h1>Calculation interface</h1>
<p class="mt-2 max-w-prose">
	Every judgement and number of the core can be asked for without the pages: <code class="font-mono"
		>POST /api/v1/calc/OPERATION</code
	>
	with JSON, signed in or with a key in <code class="font-mono">x-api-key</code>; or
	<code class="font-mono">npm run -s calc -- OPERATION &lt; input.json</code>. The whole
	description:
	<a class="linkish" href="/api/v1/openapi.json" data-sveltekit-reload>openapi.json</a>.
</p>
{#each data.operations as op (op.name)}
	<section class="rowline py-4" aria-labelledby="op-{op.name}">
		<h2 id="op-{op.name}" class="font-mono text-[1.1rem]! text-ink!">{op.name}</h2>
		<p>{op.description}</p>
		<div class="mt-2 grid gap-4 lg:grid-cols-2">
			{#each [['In', op.input], ['Out', op.output]] as [label, schema] (label)}
				<details>
					<summary class="min-h-11 cursor-pointer content-center font-semibold">{label}</summary
					><!-- svelte-ignore a11y_no_noninteractive_tabindex -->
					<pre
						class="max-h-96 overflow-auto bg-sheet p-3 text-[0.82rem]"
						tabindex="0">{schema}</pre>
				</details>
			{/each}
		</div>
	</section>
{/each}
