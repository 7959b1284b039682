<script lang="ts">
	/** Where the set-up stands, and the way to its next step. */
	import { page } from '$app/state';

	const STEPS = [
		{ href: '/set-up/site', name: 'Site' },
		{ href: '/set-up/places', name: 'Places' },
		{ href: '/set-up/equipment', name: 'Equipment' },
		{ href: '/set-up/register', name: 'Register' }
	] as const;
	const here = $derived(STEPS.findIndex(({ href }) => href === page.url.pathname));
</script>

<p class="text-soft">
	Set-up, step {here + 1} of {STEPS.length}. It can be left at any time and goes on where it was.
</p>
<ol class="mt-1 flex flex-wrap gap-x-1 border-b border-rule">
	{#each STEPS as step, i (step.href)}
		<li>
			<a
				href={step.href}
				aria-current={i === here ? 'step' : undefined}
				class="inline-flex min-h-11 items-center px-3 no-underline hover:bg-tint {i === here
					? 'font-bold shadow-[inset_0_-3px_0_var(--accent)]'
					: ''}">{i + 1}. {step.name}</a
			>
		</li>
	{/each}
</ol>
