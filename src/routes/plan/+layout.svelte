<script lang="ts">
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { PLAN_LINKS } from '$lib/ui/sections';

	let { children } = $props();
</script>

<SectionLinks label="Plan" links={PLAN_LINKS} />
{@render children()}
