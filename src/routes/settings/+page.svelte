<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import { siteMoment } from '$lib/ui/time/moments';
	import { PASSWORD_LEAST, PIN_LEAST, PIN_MOST } from '$core/access/secrets';
	import HistoryList from '$lib/ui/records/HistoryList.svelte';
	import SecretField from '$lib/ui/form/SecretField.svelte';
	import TwoStep from './TwoStep.svelte';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const done = $derived(form && 'done' in form ? form.done : null);
	/** The browser in a few words. */
	const browser = (agent: string | null) =>
		/(Edg|Firefox|Chrome|Safari)\/(\d+)/.exec(agent ?? '')?.[1]?.replace('Edg', 'Edge') ??
		'a program';
	const CHOSEN: Record<string, string> = {
		pin: 'Your PIN was chosen.',
		card: 'This is your new card. The one before opens nothing any more.',
		password: 'Your password was changed. Wherever else you were signed in, you are not any more.',
		'two-step': 'Two-step sign-in is on. Your authenticator is asked for from now on.',
		'no two-step': 'Two-step sign-in is off.'
	};
</script>

{#snippet pinField(id: string, label: string, name: string, path: string)}<PlainField
		{id}
		{label}
		{name}
		type="password"
		inputmode="numeric"
		autocomplete="off"
		maxlength={PIN_MOST}
		required
		mono
		width="w-40"
		refusal={refusedAt(refusal, path)}
	/>{/snippet}

<svelte:head><title>Settings · Grevan</title></svelte:head>
{#if data.mustTwoStep}<div class="mt-4 max-w-prose">
		<Notice kind="caution"
			><p>
				This site asks every {data.account.role} for two steps. Set up the second below; then the rest
				opens.
			</p></Notice
		>
	</div>{/if}
{#if done && CHOSEN[done]}<div class="mt-4 max-w-prose">
		<Notice kind="good"><p role="status">{CHOSEN[done]}</p></Notice>
	</div>{/if}
<div class="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-2">
	<section aria-labelledby="pin-title">
		<h2 id="pin-title" class="text-ink! text-[1.1rem]!">PIN</h2>
		<p class="text-soft mt-1 max-w-prose">
			{data.account.hasPin
				? 'You take over a bench and sign with it.'
				: 'With a PIN you take over a bench and sign without typing your password.'}
			{PIN_LEAST} to {PIN_MOST} digits; it works only where somebody signed in with a password before.
		</p>
		<form method="post" action="?/pin" use:enhance class="mt-3 grid max-w-[22rem] gap-3">
			{@render pinField('pin', 'New PIN', 'pin', 'pin')}
			{@render pinField('pin-again', 'The same again', 'again', 'pinAgain')}
			<button class="button justify-self-start"
				>{data.account.hasPin ? 'Change the PIN' : 'Choose this PIN'}</button
			>
		</form>
	</section>

	<section aria-labelledby="card-title">
		<h2 id="card-title" class="text-ink! text-[1.1rem]!">Personal card</h2>
		{#if data.account.card}
			<!-- eslint-disable svelte/no-at-html-tags -- drawn by the server, nothing of a person in it -->
			<div
				class="mt-3 inline-grid grid-cols-[7rem_1fr] gap-4 border-2 border-ink bg-white p-4 text-black"
			>
				<div class="w-28" aria-hidden="true">{@html data.cardQr}</div>
				<div class="grid content-between">
					<p class="text-[1.15rem] font-bold">{data.account.name}</p>
					<p class="font-mono">{data.account.card}</p>
					<div class="w-44" aria-hidden="true">{@html data.cardBar}</div>
				</div>
			</div>
			<!-- eslint-enable svelte/no-at-html-tags -->
			<p class="text-soft mt-2 max-w-prose">
				Scanned at a shared bench, from any page, it asks for your PIN and the bench is yours.
			</p>
		{:else}
			<p class="text-soft mt-1 max-w-prose">
				Scanned at a shared bench, it asks for your PIN and the bench is yours. You have none yet.
			</p>
		{/if}
		<form method="post" action="?/card" use:enhance class="mt-2 flex gap-3">
			<button class="button">{data.account.card ? 'Lost: make another' : 'Make my card'}</button>
			{#if data.account.card}<button type="button" class="button" onclick={() => window.print()}
					>Print</button
				>{/if}
		</form>
	</section>

	<section aria-labelledby="password-title" class="no-print">
		<h2 id="password-title" class="text-ink! text-[1.1rem]!">Password</h2>
		<form method="post" action="?/password" use:enhance class="mt-3 grid max-w-[22rem] gap-3">
			<input type="hidden" name="email" value={data.account.email} autocomplete="username" />
			<SecretField
				id="before"
				name="before"
				label="Password until now"
				autocomplete="current-password"
				refusal={refusedAt(refusal, 'before')}
			/>
			<SecretField
				id="new-password"
				name="password"
				label="New password"
				autocomplete="new-password"
				refusal={refusedAt(refusal, 'password')}
				hint="At least {PASSWORD_LEAST} characters; a few words are easy to keep in mind."
			/>
			<SecretField
				id="new-again"
				name="again"
				label="The same again"
				autocomplete="new-password"
				refusal={refusedAt(refusal, 'again')}
			/>
			{#if refusal && !refusal.path}<FormRefusal {refusal} />{/if}
			<button class="button justify-self-start">Change the password</button>
		</form>
	</section>

	<section aria-labelledby="two-step-title" class="no-print">
		<h2 id="two-step-title" class="text-ink! text-[1.1rem]!">Two-step sign-in</h2>
		<TwoStep on={data.account.twoStep} {form} />
	</section>
</div>

<section aria-labelledby="sessions-title" class="no-print mt-8">
	<div class="flex flex-wrap items-center gap-4">
		<h2 id="sessions-title" class="text-ink! text-[1.1rem]!">Where you are signed in</h2>
		{#if data.sessions.length > 1}<form method="post" action="?/endAll" use:enhance class="ml-auto">
				<button class="button">End all the others</button>
			</form>{/if}
	</div>
	<ul class="mt-2">
		{#each data.sessions as session (session.id)}
			<li class="rowline flex flex-wrap items-center gap-x-6 gap-y-1 py-2">
				<span class="min-w-[16rem] flex-1">
					<b>{session.device || browser(session.browser)}</b>{session.shared
						? ', a shared bench'
						: ''}{session.id === data.here ? ', here and now' : ''}
				</span>
				<span class="text-soft"
					>{session.way === 'pin' ? 'by card and PIN' : 'with a password'}, {siteMoment(
						session.begunAt
					)}; used {siteMoment(session.seenAt)}</span
				>
				{#if session.id !== data.here}<form method="post" action="?/end" use:enhance>
						<input type="hidden" name="id" value={session.id} />
						<button class="linkish min-h-11">End it</button>
					</form>{/if}
			</li>
		{/each}
	</ul>
</section>

<section aria-labelledby="history-title" class="no-print mt-8">
	<h2 id="history-title" class="text-ink! text-[1.1rem]!">What became of your account</h2>
	<p class="text-soft mt-1">
		Is something here that was not you? Choose another password, and tell the one who keeps the
		accounts.
	</p>
	<HistoryList lines={data.lines} />
</section>
