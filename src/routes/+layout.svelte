<script lang="ts">
	import '../app.css';
	import Shell from '$lib/ui/shell/Shell.svelte';

	let { data, children } = $props();
</script>

{#if data.actor}
	<Shell actor={data.actor} ruleSet={data.site.ruleSet} theme={data.theme}
		>{@render children()}</Shell
	>
{:else}
	<main id="main" class="mx-auto max-w-5xl p-6">{@render children()}</main>
{/if}
