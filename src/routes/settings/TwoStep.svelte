<script lang="ts">
	/** Turns the second step of signing in on and off. */
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import SecretField from '$lib/ui/form/SecretField.svelte';
	import { refusedAt, type FormRefusal } from '$lib/ui/form/refused';

	interface Props {
		on: boolean;
		form: object | null;
	}
	let { on, form }: Props = $props();
	interface Begun {
		qr: string;
		key: string | null;
		codes: string[];
	}
	/** Stays while the code is typed, also when that was wrong. */
	let begun = $state.raw<Begun | null>(null);
	const refusal = $derived(
		form && 'refusal' in form ? (form as { refusal: FormRefusal }).refusal : null
	);
	$effect(() => {
		if (form && 'codes' in form) begun = form as Begun;
		else if (form && 'done' in form) begun = null;
	});
</script>

{#if on}
	<p class="text-soft mt-1 max-w-prose">
		It is on: after your password, the code of your authenticator is asked for.
	</p>
	<form method="post" action="?/endTwoStep" use:enhance class="mt-3">
		<button class="button">Turn it off</button>
	</form>
{:else if begun}
	<ol class="mt-2 grid max-w-prose list-decimal gap-4 pl-5">
		<li>
			<p>Read this with an authenticator app, or type the key.</p>
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server -->
			<div class="my-2 w-44 bg-white p-2" aria-hidden="true">{@html begun.qr}</div>
			<p class="font-mono break-all">{begun.key}</p>
		</li>
		<li>
			<p>Write these codes down. Each opens once, when the app is lost; they are shown only now.</p>
			<ul class="mt-1 grid grid-cols-2 gap-x-6 font-mono">
				{#each begun.codes as code (code)}<li>{code}</li>{/each}
			</ul>
		</li>
		<li>
			<form method="post" action="?/confirm" use:enhance class="grid gap-3">
				<PlainField
					id="totp"
					label="Code that the app shows now"
					name="code"
					inputmode="numeric"
					autocomplete="one-time-code"
					maxlength={10}
					required
					mono
					width="w-40 text-[1.2rem]"
					refusal={refusedAt(refusal, 'code')}
				/>
				<button class="button primary justify-self-start">Turn it on</button>
			</form>
		</li>
	</ol>
{:else}
	<p class="text-soft mt-1 max-w-prose">
		Beside your password, a code of an authenticator app on your telephone. It works without a
		network.
	</p>
	<form method="post" action="?/twoStep" use:enhance class="mt-3 grid max-w-[22rem] gap-3">
		<SecretField
			id="secret"
			name="secret"
			label="Your password"
			autocomplete="current-password"
			refusal={refusedAt(refusal, 'secret')}
		/>
		<button class="button justify-self-start">Set it up</button>
	</form>
{/if}
