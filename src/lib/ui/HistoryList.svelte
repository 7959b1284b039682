<script lang="ts">
	/** What happened, signed and in order, newest first. */
	import { format } from 'date-fns';
	import { historySentence } from './history';

	interface Line {
		seq: number;
		at: Date;
		actor: string;
		action: string;
		subject: string;
		payload: Record<string, unknown>;
		hash: string;
	}
	let { lines }: { lines: Line[] } = $props();
	const reasons = (payload: Record<string, unknown>) =>
		(Array.isArray(payload.reasons) ? payload.reasons : []) as { rule: string; text: string }[];
</script>

<ol class="mt-3">
	{#each lines as line (line.seq)}
		<li
			class="rowline grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1 py-2 md:grid-cols-[11rem_1fr_9rem_8.5rem]"
		>
			<time class="font-mono text-[0.92rem]" datetime={line.at.toISOString()}
				>{format(line.at, 'd MMM yyyy HH:mm')}</time
			>
			<div>
				<b class="font-semibold">{historySentence(line.action, line.payload)}</b>
				{#each reasons(line.payload) as reason (reason.rule + reason.text)}<br /><span
						class="text-soft text-[0.93rem]">{reason.text}</span
					>{/each}
			</div>
			<span>{line.actor}</span>
			<span
				class="text-soft font-mono text-[0.8rem] whitespace-nowrap"
				title="Entry {line.seq}, hash {line.hash}">{line.seq} · {line.hash.slice(0, 7)}</span
			>
		</li>
	{/each}
</ol>
