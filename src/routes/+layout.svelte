<script lang="ts">
	import '../app.css';
	import { page } from '$app/state';
	import Shell from '$lib/ui/shell/Shell.svelte';
	import { serverClock } from '$lib/ui/timer/clock.svelte';

	let { data, children } = $props();
	/** A screen that somebody else looks at, without ways to anywhere. */
	const bare = $derived(page.data.bare === true);
	/** A page is made anew for another thing of its kind: nothing of the one before stays on it. */
	const here = $derived(`${page.route.id} ${JSON.stringify(page.params)}`);
	$effect(() => {
		// The pages before signing in hear keys at once; the shell says when it does.
		if (!data.actor || bare) document.documentElement.dataset.ready = 'true';
	});
	$effect.pre(() => serverClock.set(data.serverNow));
</script>

{#if data.actor && !bare}
	<Shell
		actor={data.actor}
		ruleSet={data.site.ruleSet}
		theme={data.theme}
		timers={data.timers}
		shared={data.session?.shared ?? false}
		failuresBefore={data.session?.failuresBefore ?? 0}
		hasPin={data.session?.hasPin ?? false}
		>{#key here}{@render children()}{/key}</Shell
	>
{:else}
	<main id="main" class="mx-auto max-w-5xl p-6">{@render children()}</main>
{/if}
