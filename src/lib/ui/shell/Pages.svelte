<script lang="ts">
	/** Back and next through the pages of a long list; nothing where there is one. */
	interface Props {
		number: number;
		pages: number;
		/** Address of a page. */
		at: (page: number) => string;
	}
	let { number, pages, at }: Props = $props();
</script>

{#if pages > 1}
	<nav class="mt-4 flex items-center gap-3" aria-label="Pages">
		{#if number > 1}<a class="button" href={at(number - 1)}>Back</a>{/if}
		<span>Page {number} of {pages}</span>
		{#if number < pages}<a class="button" href={at(number + 1)}>Next</a>{/if}
	</nav>
{/if}
