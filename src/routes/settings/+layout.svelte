<script lang="ts">
	import SectionLinks from '$lib/ui/shell/SectionLinks.svelte';
	import { SETTINGS_LINKS } from '$lib/ui/sections';

	let { data, children } = $props();
	const ROLES = ['viewer', 'technician', 'supervisor', 'admin'];
	const rank = (role: string | undefined) => ROLES.indexOf(role ?? '');
	const links = $derived(SETTINGS_LINKS.filter(({ from }) => rank(data.actor?.role) >= rank(from)));
</script>

<h1 class="no-print">Settings</h1>
<div class="mt-2"><SectionLinks label="Settings" {links} /></div>
{@render children()}
