<script lang="ts">
	/** What falls due about an item, the next first, and what happened to it last, each opening what it was. */
	import { DUE_WORDS } from '$core/plan/agenda';
	import { daysBetween, readable } from '$core/plan/calendar';
	import { NEVER, stateOn } from '$core/readiness/findings';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';
	import type { PageData } from './$types';

	interface Props {
		dues: PageData['dues'];
		events: PageData['events'];
		tag: string;
		asOf: string;
	}
	let { dues, events, tag, asOf }: Props = $props();
	const left = (on: string) => {
		const days = daysBetween(asOf, on);
		const n = Math.abs(days);
		const words = n === 1 ? '1 day' : `${n} days`;
		return days < 0 ? `${words} ago` : days === 0 ? 'last day today' : `${words} left`;
	};
</script>

<h2 class="mt-7">What falls due</h2>
{#if dues.length === 0}<p class="mt-1">Nothing any more.</p>{/if}
<ul>
	{#each dues as due (due.what + due.part)}
		{@const never = due.on === NEVER}
		<li class="rowline grid min-h-11 grid-cols-[1.6rem_1fr_auto] items-center gap-x-3 py-1">
			<StateMark state={stateOn({ blocked: null, dueFrom: due.from, dueOn: due.on }, asOf)} />
			<span
				>{#if due.part}<a class="tag linkish" href="/items/{due.part}">{due.part}</a> on it, what falls
					due first{:else}{DUE_WORDS[due.what]}{/if}</span
			>
			<span class="text-right"
				>{#if never}never done here{:else}<b class="font-semibold">{readable(due.on)}</b>
					<span class="text-soft">· {left(due.on)}</span>{/if}</span
			>
		</li>
	{/each}
</ul>
<h2 class="mt-7">Last events</h2>
{#if events.length === 0}<p class="mt-1">Nothing has happened to it yet.</p>{/if}
<HistoryList lines={events} of={tag} narrow />
{#if events.length > 0}<p class="mt-2">
		<a class="linkish" href="/items/{tag}/history">All of its history</a>
	</p>{/if}
