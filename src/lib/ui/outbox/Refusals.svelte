<script lang="ts">
	/** What the server did not take, by name, on every page until it has been seen or entered another way. */
	import { SvelteMap } from 'svelte/reactivity';
	import { goto } from '$app/navigation';
	import { freshId } from '$lib/fresh-id';
	import Notice from '../form/Notice.svelte';
	import { personHeaders } from '../shell/person';
	import { outbox } from './outbox.svelte';
	import type { Parcel, Refusal } from './parcel';
	import Sheet from './Sheet.svelte';

	/** Of one inspection together: what ends one answer mostly ends the next. */
	const groups = $derived.by(() => {
		const found = new SvelteMap<string, Refusal[]>();
		for (const refusal of outbox.refusals)
			found.set(refusal.about, [...(found.get(refusal.about) ?? []), refusal]);
		return [...found];
	});
	const parcelsOf = (refusals: readonly Refusal[]) =>
		refusals.flatMap(({ parcel }) => (parcel ? [parcel] : []));
	const isAnswer = ({ parcel }: Refusal) => parcel?.url.endsWith('/answers') ?? false;
	const isFault = (refusal: Refusal) =>
		isAnswer(refusal) && refusal.parcel?.body.value === 'reject';
	const messages = (refusals: readonly Refusal[]) => [...new Set(refusals.map((r) => r.message))];
	let failed = $state<Record<string, string>>({});

	/** Gives the same again, under ids of their own, and takes it off the list. */
	function giveAgain(
		refusals: readonly Refusal[],
		as: (refusal: Refusal) => Pick<Parcel, 'about' | 'url' | 'says' | 'body'>
	) {
		for (const refusal of refusals) {
			const { parcel } = refusal;
			if (!parcel) continue;
			const id = freshId();
			const again = as(refusal);
			const { name, file } = parcel;
			outbox.put({ id, name, ...again, body: { ...again.body, id }, ...(file && { file }) });
		}
		outbox.seen(refusals.map(({ id }) => id));
	}

	const asFaults = (refusals: readonly Refusal[]) =>
		giveAgain(refusals.filter(isFault), ({ about, parcel }) => ({
			about,
			url: `/api/runs/${about}/faults`,
			says: `Fault: ${parcel?.says ?? ''}`,
			body: { step: parcel?.body.step, code: parcel?.body.code, note: parcel?.body.note ?? null }
		}));

	/** Into the inspection that is open on the item, or a new one. */
	async function intoRun(about: string, refusals: readonly Refusal[]) {
		failed = { ...failed, [about]: '' };
		const response = await fetch(`/api/runs/${about}/again`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', ...personHeaders() },
			body: JSON.stringify({ id: freshId() })
		}).catch(() => null);
		const said = (await response?.json().catch(() => null)) as {
			run?: string;
			seen?: number;
			message?: string;
		} | null;
		const { run, seen } = said ?? {};
		if (!run) {
			failed = {
				...failed,
				[about]:
					said?.message ?? 'The server could not be reached. Nothing is lost; press it again.'
			};
			return;
		}
		giveAgain(
			refusals.filter(({ parcel }) => parcel && !parcel.last),
			({ parcel }) => ({
				about: run,
				url: `/api/runs/${run}/${parcel?.url.split('/').at(-1) ?? 'answers'}`,
				says: parcel?.says ?? '',
				body: { ...parcel?.body, seen }
			})
		);
		// The page is to open with what was taken.
		await outbox.flush();
		await goto(`/runs/${run}`, { invalidateAll: true });
	}
</script>

{#each groups as [about, refusals] (about)}
	{@const faults = refusals.filter(isFault)}
	{@const name = refusals[0]?.name}
	<div class="no-print mb-3">
		<Notice kind="refusal">
			{#each messages(refusals) as message (message)}<p>
					<b class="tag">{name}</b> Not taken: {message}
				</p>{/each}
			{#if parcelsOf(refusals).some((p) => p.says)}
				<ul class="mt-1 list-disc pl-6">
					{#each parcelsOf(refusals) as parcel (parcel.id)}
						{#if parcel.says}<li>{parcel.says}</li>{/if}
					{/each}
				</ul>
			{/if}
			{#if failed[about]}<p class="mt-1 font-semibold text-held" role="alert">
					{failed[about]}
				</p>{/if}
			<p class="mt-2 flex flex-wrap items-center gap-3">
				{#if faults.length}<button type="button" class="button" onclick={() => asFaults(refusals)}
						>Enter {faults.length === 1 ? 'it as a fault' : `${faults.length} as faults`}</button
					>{/if}
				{#if refusals.some(isAnswer)}<button
						type="button"
						class="button"
						onclick={() => void intoRun(about, refusals)}>Into an inspection of {name}</button
					>{/if}
				{#if parcelsOf(refusals).length}<Sheet parcels={parcelsOf(refusals)} />{/if}
				<a class="linkish" href="/runs/{about}">Open it</a>
				<button
					type="button"
					class="linkish min-h-11"
					onclick={() => outbox.seen(refusals.map(({ id }) => id))}>Seen, leave it out</button
				>
			</p>
		</Notice>
	</div>
{/each}
