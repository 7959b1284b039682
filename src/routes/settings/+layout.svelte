<script lang="ts">
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { reachedBy, SETTINGS_LINKS } from '$lib/ui/sections';

	let { data, children } = $props();
	const links = $derived(reachedBy(data.actor?.role, SETTINGS_LINKS));
</script>

<h1 class="no-print">Settings</h1>
<div class="mt-2"><SectionLinks label="Settings" {links} /></div>
{@render children()}
