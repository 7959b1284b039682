<script lang="ts">
	import '../app.css';
	import Shell from '$lib/ui/shell/Shell.svelte';
	import { serverClock } from '$lib/ui/timer/clock.svelte';

	let { data, children } = $props();
	$effect.pre(() => serverClock.set(data.serverNow));
</script>

{#if data.actor}
	<Shell actor={data.actor} ruleSet={data.site.ruleSet} theme={data.theme} timers={data.timers}
		>{@render children()}</Shell
	>
{:else}
	<main id="main" class="mx-auto max-w-5xl p-6">{@render children()}</main>
{/if}
