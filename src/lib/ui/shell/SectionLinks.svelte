<script lang="ts">
	/** The parts of one section, as a row of links under its title. */
	import { page } from '$app/state';

	interface Props {
		label: string;
		links: readonly { href: string; name: string }[];
	}
	let { label, links }: Props = $props();
	/** What lies below a part belongs to it; the first page of a section stands for itself only. */
	const isHere = (href: string) =>
		page.url.pathname === href ||
		(href.lastIndexOf('/') > 0 && page.url.pathname.startsWith(`${href}/`));
</script>

<nav aria-label={label} class="no-print flex flex-wrap gap-x-1 border-b border-rule">
	{#each links as link (link.href)}
		{@const here = isHere(link.href)}
		<a
			href={link.href}
			aria-current={here ? 'page' : undefined}
			class="inline-flex min-h-11 items-center px-3 no-underline hover:bg-tint {here
				? 'font-bold shadow-[inset_0_-3px_0_var(--accent)]'
				: ''}">{link.name}</a
		>
	{/each}
</nav>
