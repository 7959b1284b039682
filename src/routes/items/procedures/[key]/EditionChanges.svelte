<script lang="ts">
	/** What a version changed, line by line. */
	import type { EditionChange } from '$core/inspection/edition';

	let { changes }: { changes: readonly EditionChange[] } = $props();
</script>

<ul class="text-[0.95rem]">
	{#each changes as change, i (i)}
		<li class="py-0.5">
			<span class="text-soft">{change.what}</span> <b>{change.step}</b>{#if change.field}, {change.field}:
				<del class="text-soft">{change.from}</del> <ins class="no-underline">{change.to}</ins>{/if}
		</li>
	{/each}
</ul>
