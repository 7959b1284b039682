<script lang="ts">
	/** The simulated mailbox of the demo: every message that would have left, whoever it was to. */
	import { siteMoment } from '$lib/ui/time/moments';

	let { data } = $props();
	let chosen = $state<string | null>(null);
	const open = $derived(
		data.messages.find((one) => one.notice.id === chosen) ?? data.messages[0] ?? null
	);
</script>

<svelte:head><title>Mailbox of the demo · Grevan</title></svelte:head>
<p class="crumb mt-4"><a class="linkish" href="/settings/messages">Messages</a></p>
<h2 class="text-[1.3rem]! text-ink!">Mailbox of the demo</h2>
<p class="text-soft">
	Simulated: nothing left this machine. With a mail server each lands at its address.
</p>
{#if data.messages.length === 0}<p class="mt-3">
		Nothing yet. The message of the day is made on working days; a recall is told at once.
	</p>{/if}
<div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[24rem_minmax(0,1fr)]">
	<ul>
		{#each data.messages as { notice, to } (notice.id)}
			<li class="rowline">
				<button
					class="grid min-h-14 w-full py-2 text-left {open?.notice.id === notice.id
						? 'bg-tint'
						: ''}"
					aria-current={open?.notice.id === notice.id ? 'true' : undefined}
					onclick={() => (chosen = notice.id)}
				>
					<b>{notice.subject}</b>
					<span class="text-soft"
						>to {to}, {siteMoment(notice.madeAt)}{notice.kind === 'urgent' ? ', at once' : ''}</span
					>
				</button>
			</li>
		{/each}
	</ul>
	{#if open}
		<article aria-label={open.notice.subject}>
			<p class="text-soft">To {open.to}, {open.notice.address}</p>
			<p class="mt-1 text-[1.15rem] font-bold">{open.notice.subject}</p>
			<pre class="mt-3 font-sans whitespace-pre-wrap">{open.notice.body}</pre>
		</article>
	{/if}
</div>
