<script lang="ts">
	import { page } from '$app/state';
	import DrillMark from '$lib/ui/drill/DrillMark.svelte';
	import { DRILL_LINKS, reachedBy } from '$lib/ui/sections';
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';

	let { data, children } = $props();
	const walking = $derived(/^\/drill\/(run\/|exam\/.)/.test(page.url.pathname));
	const links = $derived(reachedBy(data.actor?.role, DRILL_LINKS));
</script>

<DrillMark />
{#if !walking}<div class="mt-2"><SectionLinks label="Drill" {links} /></div>{/if}
{@render children()}
