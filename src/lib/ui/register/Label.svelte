<script lang="ts">
	/** A label to print: what is scanned in large, what it is below, both codes beside it. */
	interface Props {
		/** What the codes say. */
		text: string;
		lines: readonly string[];
		/** Drawn on the server from the text alone. */
		qr: string;
		bar: string;
	}
	let { text, lines, qr, bar }: Props = $props();
</script>

<article
	class="grid w-[70mm] break-inside-avoid grid-cols-[1fr_22mm] gap-3 rounded border-2 border-ink bg-white p-3 text-black"
	aria-label="Label of {text}"
>
	<div>
		<p class="font-mono text-[1.4rem] font-bold break-all">{text}</p>
		{#each lines as line (line)}<p class="text-[0.95rem]">{line}</p>{/each}
	</div>
	<div class="grid content-between gap-1 [&_svg]:h-auto [&_svg]:w-full">
		<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the text alone -->
		{@html qr}
		<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the text alone -->
		{@html bar}
	</div>
</article>
