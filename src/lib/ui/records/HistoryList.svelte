<script lang="ts">
	/** What happened, signed and in order, newest first; each line names its item and opens what it speaks of. */
	import type { ActionLink } from '$core/actions/action';
	import { siteMoment } from '$lib/ui/time/moments';
	import { hrefOf } from './hrefs';

	interface Line {
		seq: number;
		at: Date;
		actor: string;
		/** Tag of the item that it is about. */
		tag: string | null;
		says: string;
		links: ActionLink[];
		reasons: string[];
		hash: string;
	}
	interface Props {
		lines: Line[];
		/** Tag of the item whose page this is: it is not named again. */
		of?: string;
		/** Beside something else: without the hashes. */
		narrow?: boolean;
	}
	let { lines, of, narrow = false }: Props = $props();
	const linksOf = (line: Line) =>
		line.links.flatMap((link) => {
			const href = hrefOf(link);
			return href ? [{ href, words: link.words }] : [];
		});
</script>

<ol class="mt-3">
	{#each lines as line (line.seq)}
		{@const [first, ...others] = linksOf(line)}
		<li
			class="rowline grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1 py-2 {narrow
				? 'md:grid-cols-[11.5rem_1fr_8rem]'
				: 'md:grid-cols-[11.5rem_1fr_9rem_8.5rem]'}"
		>
			<time class="font-mono text-[0.92rem] whitespace-nowrap" datetime={line.at.toISOString()}
				>{siteMoment(line.at)}</time
			>
			<div>
				{#if line.tag && line.tag !== of}<a class="tag linkish mr-2" href="/items/{line.tag}"
						>{line.tag}</a
					>{/if}{#if first}<a class="linkish" href={first.href}
						><b class="font-semibold">{line.says}</b></a
					>{:else}<b class="font-semibold">{line.says}</b>{/if}
				{#each others as { href, words } (href)}<span class="text-soft">
						· <a class="linkish" {href}>{words ?? 'more'}</a></span
					>{/each}
				{#each line.reasons as reason, i (i)}<br /><span class="text-soft text-[0.93rem]"
						>{reason}</span
					>{/each}
			</div>
			<span>{line.actor}</span>
			{#if !narrow}<span
					class="text-soft font-mono text-[0.8rem] whitespace-nowrap"
					title="Entry {line.seq}, hash {line.hash}">{line.seq} · {line.hash.slice(0, 7)}</span
				>{/if}
		</li>
	{/each}
</ol>
