<script lang="ts">
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { WASH_LINKS } from '$lib/ui/sections';

	let { children } = $props();
</script>

<SectionLinks label="Wash" links={WASH_LINKS} />
{@render children()}
