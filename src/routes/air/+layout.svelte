<script lang="ts">
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { AIR_LINKS } from '$lib/ui/sections';

	let { children } = $props();
</script>

<div class="flex flex-wrap items-baseline gap-x-4">
	<h1>Air</h1>
	<p class="text-soft">by the state of real air: at 300 bar it is a tenth less than p·V says</p>
</div>
<div class="mt-2"><SectionLinks label="Air" links={AIR_LINKS} /></div>
{@render children()}
