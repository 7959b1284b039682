<script lang="ts">
	/** Entries that were kept: who was in, with what, for how long, what was raised; and what wearers take. */
	import { differenceInMinutes } from 'date-fns';
	import { siteClock, siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
</script>

<svelte:head><title>Entries kept · Grevan</title></svelte:head>
<p class="crumb mt-2"><a class="linkish" href="/air/board">Entry board</a></p>
<div class="mt-2 grid gap-10 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<section aria-labelledby="entries">
		<h2 id="entries">Entries, newest first</h2>
		{#if data.entries.length === 0}<p class="mt-1">None yet. They come from the board.</p>{/if}
		<ul>
			{#each data.entries as { team, place, by, wearers } (team.id)}
				<li class="rowline py-2">
					<p>
						<b>{team.number}. {team.task}</b>{place ? `, ${place}` : ''}
						<span class="text-soft"
							>{siteMoment(team.openedAt)}, sent in by {by}{team.closedAt ? '' : ', still in'}</span
						>
					</p>
					<ul class="mt-1 grid gap-1">
						{#each wearers as { wearer, set, lPerMin, alarms } (wearer.id)}
							<li class="flex flex-wrap gap-x-4">
								<span class="w-36">{wearer.wearer}</span>
								<span class="tag w-20">{set ?? ''}</span>
								<span class="font-mono"
									>{Math.round(wearer.startBar)} → {wearer.endBar === null
										? '…'
										: Math.round(wearer.endBar)} bar</span
								>
								{#if wearer.endedAt}<span class="font-mono"
										>{differenceInMinutes(wearer.endedAt, wearer.startedAt)} min</span
									>{/if}
								{#if lPerMin}<span class="font-mono font-semibold">{Math.round(lPerMin)} L/min</span
									>{/if}
								{#each alarms as { alarm, seenBy } (alarm.id)}<span class="text-held"
										>{alarm.kind}
										{siteClock(alarm.dueAt)}{seenBy ? `, seen by ${seenBy}` : ', not seen'}</span
									>{/each}
							</li>
						{/each}
					</ul>
				</li>
			{/each}
		</ul>
	</section>
	<section aria-labelledby="takes" class="self-start">
		<h2 id="takes">What wearers take, L/min</h2>
		{#if data.known.length === 0}<p class="mt-1">
				Nothing measured yet: it comes from entries of five minutes and more.
			</p>{:else}
			<table class="mt-1 w-full text-left">
				<thead class="text-soft text-[0.88rem]"
					><tr
						><th class="font-semibold">Wearer</th><th class="text-right font-semibold">Uses</th><th
							class="text-right font-semibold">Mean</th
						><th class="text-right font-semibold">Pessimistic</th></tr
					></thead
				>
				<tbody
					>{#each data.known as one (one.wearer)}<tr class="border-t border-rule"
							><td class="py-1">{one.wearer}</td><td class="text-right font-mono">{one.uses}</td><td
								class="text-right font-mono">{one.meanLPerMin.toFixed(0)}</td
							><td class="text-right font-mono font-semibold"
								>{one.pessimisticLPerMin.toFixed(0)}</td
							></tr
						>{/each}</tbody
				>
			</table>
			<p class="text-soft mt-2 text-[0.9rem]">
				Pessimistic: what the next use stays below with 95 % probability. With fewer than four uses
				a spread of 20 % stands in.
			</p>
		{/if}
	</section>
</div>
