<script lang="ts">
	/** What is told by e-mail: own choices, what today's message says, and what could not be delivered. */
	import { enhance } from '$lib/ui/form/enhance';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const STATES = { waiting: 'waits', sent: 'sent', 'given up': 'given up' } as const;
	const keep =
		() =>
		({ update }: { update: (options: { reset: boolean }) => Promise<void> }) =>
			update({ reset: false });
</script>

<svelte:head><title>Messages · Grevan</title></svelte:head>
<div class="mt-4 grid max-w-[52rem] gap-4">
	{#if form && 'kept' in form}<Notice kind="good"><p role="status">Kept.</p></Notice>{/if}
	{#if form && 'again' in form}<Notice kind="good"
			><p role="status">It is tried again within seconds.</p></Notice
		>{/if}
	<FormRefusal refusal={refusedAt(refusal, 'digestHour') ? null : refusal} />
	{#if data.way === 'mailbox'}
		<p>
			No mail server is set: in the demo every message lies in a
			<a class="linkish" href="/settings/messages/mailbox">mailbox of the app</a>.
		</p>
	{:else if data.way === null}
		<Notice kind="caution"
			><p>
				No mail server is set, so that no message leaves. Whoever runs the app sets
				<span class="font-mono">SMTP_URL</span>; the README says how.
			</p></Notice
		>
	{/if}
	<form method="post" action="?/choose" use:enhance={keep}>
		<h2>What you are told</h2>
		<label class="rowline flex min-h-14 items-start gap-3 py-2"
			><input
				type="checkbox"
				name="digest"
				checked={data.choice.digest}
				class="mt-1 shrink-0"
			/><span
				><b>A message a day at most</b>, on working days from {String(data.digestHour).padStart(
					2,
					'0'
				)}:00 on: what is overdue, what is due this week, what is held, what lapses, what to buy.
				Nothing to say, no message.</span
			></label
		>
		<label class="rowline flex min-h-14 items-start gap-3 py-2"
			><input
				type="checkbox"
				name="urgent"
				checked={data.choice.urgent}
				class="mt-1 shrink-0"
			/><span
				><b>At once</b>: a lot that is recalled, a model that is withdrawn, air that failed its
				test.</span
			></label
		>
		<button class="button primary mt-3">Keep</button>
	</form>
	<section aria-labelledby="today">
		<h2 id="today">What today’s message says to you</h2>
		{#if data.preview}
			<p class="mt-1 font-semibold">{data.preview.subject}</p>
			<pre class="mt-2 rounded border border-rule bg-sheet p-4 font-sans whitespace-pre-wrap">{data
					.preview.text}</pre>
		{:else}<p class="mt-1">Nothing: there would be no message.</p>{/if}
	</section>
	{#if data.keeps}
		<form
			method="post"
			action="?/hour"
			class="flex flex-wrap items-end gap-3"
			use:enhance={keep}
			aria-label="Hour of the message"
		>
			<input type="hidden" name="version" value={data.version} />
			<PlainField
				name="digestHour"
				label="Messages go out from this hour on"
				hint="By the clock of the site, 0 to 23."
				inputmode="numeric"
				width="w-28"
				value={data.digestHour}
				mono
				refusal={refusedAt(refusal, 'digestHour')}
			/>
			<button class="button">Keep the hour</button>
		</form>
		<section aria-labelledby="stuck">
			<h2 id="stuck">Not delivered</h2>
			{#if data.stuck.length === 0}<p class="mt-1">Nothing: every message was taken.</p>{/if}
			<ul>
				{#each data.stuck as one (one.id)}
					<li class="rowline grid items-center gap-x-4 py-2 sm:grid-cols-[1fr_auto]">
						<span
							><b>{one.subject}</b>, to {one.to}
							<span class="text-soft">({one.address})</span><br />
							<span class="text-held">{one.lastError}</span>
							<span class="text-soft"
								>· tried {one.tries}
								{one.tries === 1 ? 'time' : 'times'}{one.nextTryAt
									? `, again at ${siteMoment(one.nextTryAt)}`
									: ', given up'}</span
							></span
						>
						<form method="post" action="?/again" use:enhance>
							<input type="hidden" name="noticeId" value={one.id} />
							<button class="button">Try again now</button>
						</form>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
	<section aria-labelledby="sent">
		<h2 id="sent">Your last messages</h2>
		{#if data.own.length === 0}<p class="mt-1">None yet.</p>{/if}
		<ul>
			{#each data.own as one (one.id)}
				<li class="rowline py-1">
					<details>
						<summary class="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-4">
							<span class="font-mono text-[0.92rem]">{siteMoment(one.madeAt)}</span>
							<b class="flex-1">{one.subject}</b>
							<span class={one.state === 'given up' ? 'font-semibold text-held' : 'text-soft'}
								>{STATES[one.state]}</span
							>
						</summary>
						<pre class="font-sans whitespace-pre-wrap">{one.body}</pre>
					</details>
				</li>
			{/each}
		</ul>
	</section>
</div>
