<script lang="ts">
	/** Who is out with what, the one who should be back first. */
	import { siteMoment, siteTime } from '../time/moments';

	interface Row {
		wearerId: string;
		number: string;
		name: string;
		tags: string[];
		task: string | null;
		since: Date | null;
		dueBackAt: Date | null;
		overdue: boolean;
	}
	interface Props {
		out: readonly Row[];
		/** How many are shown before the rest is counted. */
		most?: number;
	}
	let { out, most = 12 }: Props = $props();
	const things = $derived(out.reduce((sum, { tags }) => sum + tags.length, 0));
</script>

<h2>Out now, {things}</h2>
{#if out.length === 0}<p class="text-soft mt-1">Nothing is out.</p>{/if}
<ul>
	{#each out.slice(0, most) as row (row.wearerId)}
		<li class="rowline py-2 {row.overdue ? 'text-held' : ''}">
			<div class="flex flex-wrap items-baseline gap-x-3">
				<a
					class="inline-flex min-h-9 items-center font-bold no-underline hover:underline"
					href="/people/{row.wearerId}">{row.name}</a
				>
				<span class="ml-auto font-mono whitespace-nowrap"
					>{row.overdue
						? row.dueBackAt && `due ${siteMoment(row.dueBackAt)}`
						: row.dueBackAt
							? `back by ${siteTime(row.dueBackAt)}`
							: 'own'}</span
				>
			</div>
			<p class="flex flex-wrap items-center gap-x-3">
				{#each row.tags as tag (tag)}<a
						class="tag inline-flex min-h-9 items-center"
						href="/items/{tag}">{tag}</a
					>{/each}
				<span class={row.overdue ? 'font-semibold' : 'text-soft'}
					>{row.overdue ? 'should be back' : (row.task ?? 'for no one task')}</span
				>
			</p>
		</li>
	{/each}
</ul>
{#if out.length > most}<p class="mt-1">
		<a class="linkish inline-flex min-h-11 items-center" href="/counter/where"
			>and {out.length - most} more people</a
		>
	</p>{/if}
