<script lang="ts">
	/** What falls due about an item, the next first, and what happened to it last, each opening what it was. */
	import { dueWords } from '$core/plan/agenda';
	import { EVENT_WORDS, NOTED_EVENTS, type NotedEvent } from '$core/plan/events';
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { daysBetween, readable } from '$core/plan/calendar';
	import { FAR, NEVER, stateOn } from '$core/readiness/findings';
	import { freshId } from '$lib/fresh-id';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';
	import type { PageData } from './$types';

	interface Props {
		data: PageData;
		/** Lists that may be walked now. */
		lists: PageData['lists'];
		/** What was just noted. */
		noted: NotedEvent | null | undefined;
	}
	let { data, lists, noted }: Props = $props();
	const { asOf, tag } = $derived({ asOf: data.asOf, tag: data.item.tag });
	const id = freshId();
	let eventId = $state(freshId());
	/** What can be begun at once for something that falls due: its list, or its job. */
	const startOf = (due: PageData['dues'][number]) => {
		if (due.what === 'list') {
			const list = lists.find(({ levels }) => levels.some((level) => level === due.detail));
			return list ? { action: '?/inspect', name: 'procedure', value: list.key } : null;
		}
		const free = data.mayRepair && !data.job && data.verdict.outcome !== 'retired';
		return due.what === 'service' && free
			? { action: '?/service', name: 'repair', value: due.detail }
			: null;
	};
	/** What stands elsewhere on the page is not said twice. */
	const care = $derived(
		data.sheet.filter(({ label }) => !['Model', 'Maker', 'Put on', 'Seal check'].includes(label))
	);
	const left = (on: string) => {
		const days = daysBetween(asOf, on);
		const n = Math.abs(days);
		const words = n === 1 ? '1 day' : `${n} days`;
		return days < 0 ? `${words} ago` : days === 0 ? 'last day today' : `${words} left`;
	};
</script>

<h2 class="mt-7">What falls due</h2>
{#if data.dues.length === 0}<p class="mt-1">Nothing any more.</p>{/if}
<ul>
	{#each data.dues as due (due.what + due.detail + due.part)}
		{@const never = due.on === NEVER}
		{@const start = startOf(due)}
		<li class="rowline grid min-h-11 grid-cols-[1.6rem_1fr_auto] items-center gap-x-3 py-1">
			<StateMark state={stateOn({ blocked: null, dueFrom: due.from, dueOn: due.on }, asOf)} />
			<span
				>{#if due.part}<a class="tag linkish" href="/items/{due.part}">{due.part}</a> on it, what falls
					due first{:else}{dueWords(due.what, due.detail)}{/if}</span
			>
			<span class="flex flex-wrap items-center justify-end gap-x-3 text-right"
				>{#if start}<form method="post" action={start.action}>
						<input type="hidden" name="id" value={id} />
						<button
							class="linkish min-h-11"
							name={start.name}
							value={start.value}
							aria-label="Begin: {dueWords(due.what, due.detail)}">begin</button
						>
					</form>{/if}<span
					>{#if never || due.on === FAR}{due.left || 'never done here'}{:else}<b
							class="font-semibold">{readable(due.on)}</b
						>
						<span class="text-soft">· {left(due.on)}{due.left ? `, or ${due.left}` : ''}</span
						>{/if}</span
				></span
			>
		</li>
	{/each}
</ul>
{#if data.verdict.outcome !== 'retired'}
	<details class="mt-2" open={noted !== undefined && noted !== null}>
		<summary class="min-h-11 cursor-pointer content-center font-semibold"
			>Something happened to it</summary
		>
		{#if noted}<p class="font-semibold" role="status">
				Noted: {EVENT_WORDS[noted].happened}. It is looked at before it is used again.
			</p>{/if}
		<form
			method="post"
			action="?/happened"
			class="mt-1 flex flex-wrap items-end gap-3"
			use:enhance={() =>
				async ({ update }) => {
					await update();
					eventId = freshId();
				}}
		>
			<input type="hidden" name="id" value={eventId} />
			<div class="min-w-[14rem] flex-1">
				<PlainField name="note" label="What, where" value="" />
			</div>
			{#each NOTED_EVENTS as event (event)}<button class="button" name="what" value={event}
					>{event === 'drop' ? 'Dropped or struck' : 'Splashed'}</button
				>{/each}
		</form>
	</details>
{/if}
{#if care.length}
	<h2 class="mt-7">What its maker says</h2>
	<dl class="mt-1 grid grid-cols-[11rem_1fr] gap-x-4">
		{#each care as line (line.label)}<dt class="text-soft">{line.label}</dt>
			<dd>{line.value}</dd>{/each}
	</dl>
{/if}
<h2 class="mt-7">Last events</h2>
{#if data.events.length === 0}<p class="mt-1">Nothing has happened to it yet.</p>{/if}
<HistoryList lines={data.events} of={tag} narrow />
{#if data.events.length > 0}<p class="mt-2">
		<a class="linkish" href="/items/{tag}/history">All of its history</a>
	</p>{/if}
