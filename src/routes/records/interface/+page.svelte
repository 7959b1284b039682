<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>Interface for programs · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>Interface for programs</h1>
<h2 class="mt-4">Registers</h2>
<p class="max-w-prose">
	What is on record, page by page: <code class="font-mono">GET /api/v1/registers/NAME</code> with a
	key that may read, from <a class="linkish" href="/settings/keys">Keys</a>. The answer holds
	<code class="font-mono">rows</code> and <code class="font-mono">next</code>; the next page is
	asked for with <code class="font-mono">?after=NEXT</code>, until it is null. Where rows have a
	time,
	<code class="font-mono">from</code>
	and <code class="font-mono">to</code> are days. The same as files:
	<a class="linkish" href="/records/registers">Registers as tables</a>.
</p>
<ul class="mt-2 grid max-w-[56rem] gap-x-6 sm:grid-cols-2">
	{#each data.registers as { key, what } (key)}<li>
			<code class="font-mono">{key}</code> <span class="text-soft">{what}</span>
		</li>{/each}
</ul>
<h2 class="mt-6">Calculations</h2>
<p class="max-w-prose">
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
		<h3 id="op-{op.name}" class="font-mono text-[1.1rem]! text-ink!">{op.name}</h3>
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
