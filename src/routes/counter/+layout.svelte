<script lang="ts">
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { COUNTER_LINKS } from '$lib/ui/sections';

	let { children } = $props();
</script>

<SectionLinks label="Counter" links={COUNTER_LINKS} />
{@render children()}
