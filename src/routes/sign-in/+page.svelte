<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import WhoForm from '$lib/ui/form/WhoForm.svelte';
	import Field from '$lib/ui/form/Field.svelte';
	import SecretField from '$lib/ui/form/SecretField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';

	let { data, form } = $props();
	onMount(() => void outbox.takeUp({ id: '', name: '' }));
	const WHAT: Record<string, string> = {
		technician: 'plans, inspects, opens filters, repairs',
		supervisor: 'all that, and releases repaired items',
		viewer: 'looks, changes nothing',
		admin: 'all of it, and keeps the accounts'
	};
	const next = $derived(page.url.search.replace(/^\?/, '&'));
	const said = $derived(form && 'message' in form ? form : null);
	const codeAsked = $derived(form !== null && 'code' in form);
	let again = $state(false);
	// svelte-ignore state_referenced_locally
	let shared = $state(data.shared);
	let code = $state<HTMLInputElement>();
	$effect(() => code?.focus());
</script>

{#snippet sharedField()}<input
		type="hidden"
		name="shared"
		value={shared ? 'yes' : 'no'}
	/>{/snippet}

<svelte:head><title>Sign in · Grevan</title></svelte:head>
<div class="pt-[6vh]">
	<svg viewBox="0 0 700 90" class="w-full" aria-hidden="true">
		<g fill="none" stroke="var(--ink)" stroke-width="2.6">
			<path
				d="M0 45H90M90 45c26-34 34-34 60-34h110c26 0 34 0 60 34M90 45c26 34 34 34 60 34h110c26 0 34 0 60-34"
				stroke-dasharray="7 6"
			/>
			<path d="M320 45H560" />
			<path d="M560 45H700" stroke-dasharray="7 6" />
		</g>
		<g fill="var(--ready)"
			><circle cx="180" cy="11" r="8" /><circle cx="240" cy="11" r="8" /><circle
				cx="180"
				cy="79"
				r="8"
			/><circle cx="240" cy="79" r="8" /><circle cx="400" cy="45" r="8" /><circle
				cx="500"
				cy="45"
				r="8"
			/></g
		>
	</svg>
	<h1 class="mt-4 text-[2.2rem]!">Grevan</h1>
	<p class="text-soft text-[1.1rem]">Breathing protection, from the hazard to the ready shelf.</p>

	{#if outbox.ofOthers.length}<div class="mt-6 max-w-[40rem]">
			<Notice kind="caution"
				><p>
					Waits on this device until they sign in: {outbox.ofOthers
						.map(({ name, count }) => `${count} of ${name}`)
						.join(', ')}.
				</p></Notice
			>
		</div>{/if}
	<div class="mt-8 grid gap-10 md:grid-cols-[20rem_1fr]">
		{#if codeAsked && !again}
			<form method="post" action="?/code{next}" use:enhance class="grid content-start gap-4">
				<h2 class="text-ink! text-[1.1rem]!">One step more</h2>
				<Field
					id="code"
					label="Code of your authenticator"
					hint="Six digits. Is it lost? Type one of your recovery codes."
				>
					{#snippet children(field)}<input
							{...field}
							bind:this={code}
							name="code"
							autocomplete="one-time-code"
							maxlength="40"
							required
							class="w-full font-mono text-[1.3rem]"
						/>{/snippet}
				</Field>
				{@render sharedField()}
				<span class="flex flex-wrap gap-3"
					><button class="button primary">Sign in</button><button
						type="button"
						class="linkish min-h-11"
						onclick={() => (again = true)}>Begin again</button
					></span
				>
			</form>
		{:else}
			<div class="grid content-start gap-8">
				{#if data.takesPins}
					<section aria-labelledby="by-card">
						<h2 id="by-card" class="text-ink! mb-2 text-[1.1rem]!">At this bench</h2>
						<WhoForm
							action="/hand-over?next={encodeURIComponent(
								page.url.searchParams.get('next') ?? '/'
							)}"
						/>
					</section>
				{/if}
				<form
					method="post"
					action="?/enter{next}"
					use:enhance={() => {
						again = false;
						return ({ update }) => update({ reset: false });
					}}
					class="grid content-start gap-4"
				>
					{#if data.takesPins}<h2 class="text-ink! text-[1.1rem]!">With a password</h2>{/if}
					{#if said}<Notice kind="refusal"><p>{said.message}</p></Notice>{/if}
					<Field id="email" label="Address">
						{#snippet children(field)}<input
								{...field}
								name="email"
								type="email"
								autocomplete="username"
								required
								value={said?.email ?? ''}
								class="w-full"
							/>{/snippet}
					</Field>
					<SecretField
						id="password"
						name="password"
						label="Password"
						autocomplete="current-password"
					/>
					{@render sharedField()}
					<button class="button primary justify-self-start">Sign in</button>
				</form>
				<label class="flex min-h-11 items-center gap-3">
					<input type="checkbox" bind:checked={shared} class="shrink-0" />
					<span
						>This is a bench that several share: who comes next takes over with card and PIN, and it
						signs out when nobody uses it.</span
					>
				</label>
			</div>
		{/if}

		{#if data.demo.length}
			<section aria-labelledby="demo">
				<h2 id="demo">Demo: go in as</h2>
				<ul class="mt-1">
					{#each data.demo as person (person.email)}
						<li class="rowline">
							<form method="post" action="?/demo{next}" use:enhance>
								<input type="hidden" name="email" value={person.email} />
								{@render sharedField()}
								<button
									class="flex min-h-12 w-full cursor-pointer items-center justify-between gap-4 text-left hover:bg-tint"
								>
									<span><b>{person.name}</b>, {person.role}</span><span
										class="text-soft text-[0.9rem]">{WHAT[person.role]}</span
									>
								</button>
							</form>
						</li>
					{/each}
				</ul>
				<p class="text-soft mt-2 text-[0.9rem]">
					Invented people at an invented site, Osmund Sound Harbour Works. Each signs with the PIN
					<b class="font-mono">{data.demoPin}</b>.
				</p>
			</section>
		{/if}
	</div>
	<p class="text-soft mt-10 max-w-prose text-[0.9rem]">
		Grevan supports a competent person; it does not replace one. Local law, the maker's instructions
		and licensed practice come first.
	</p>
</div>
