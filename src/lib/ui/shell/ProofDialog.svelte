<script lang="ts">
	/** Asks who is at the bench to show that it is them, before a signature goes out. */
	import { Dialog } from 'bits-ui';
	import PinPad from '../form/PinPad.svelte';
	import { proof, type ProofBy } from './proof.svelte';

	interface Props {
		name: string;
		/** Without a PIN the password is asked for. */
		hasPin: boolean;
		/** A bench that several share is entered by PIN too. */
		shared: boolean;
	}
	let { name, hasPin, shared }: Props = $props();
	let secret = $state('');
	let refused = $state<string | null>(null);
	let busy = $state(false);
	let chosen = $state<ProofBy | null>(null);
	let pinInput = $state<HTMLInputElement>();
	let passwordInput = $state<HTMLInputElement>();
	const question = $derived(proof.question);
	const takesPin = $derived(hasPin && question?.by === 'pin' && (shared || !question.signIn));
	const by: ProofBy = $derived(
		question?.by === 'code' ? 'code' : takesPin ? (chosen ?? 'pin') : 'password'
	);
	const LABEL: Record<ProofBy, string> = {
		pin: 'PIN',
		password: 'Password',
		code: 'Code of your authenticator'
	};
	$effect(() => {
		if (question) return;
		secret = '';
		refused = null;
		chosen = null;
	});

	async function give(event: SubmitEvent) {
		event.preventDefault();
		if (busy || !secret) return;
		busy = true;
		refused = await proof.give(by, secret);
		busy = false;
		secret = '';
		(by === 'pin' ? pinInput : passwordInput)?.focus();
	}
</script>

<Dialog.Root bind:open={() => question !== null, (open) => !open && proof.turnAway()}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/30" />
		<Dialog.Content
			class="fixed top-1/2 left-1/2 z-50 max-h-[96vh] w-[min(25rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border-2 border-ink bg-sheet p-6"
			onOpenAutoFocus={(event) => {
				event.preventDefault();
				(by === 'pin' ? pinInput : passwordInput)?.focus();
			}}
		>
			<Dialog.Title class="text-[1.3rem] font-bold"
				>{question?.signIn ? `Sign in again, ${name}` : `Is it you, ${name}?`}</Dialog.Title
			>
			<Dialog.Description class="text-soft mt-1">{question?.message ?? ''}</Dialog.Description>
			<form class="mt-4 grid gap-3" onsubmit={give}>
				<div>
					<label class="label" for="proof-secret">{LABEL[by]}</label>
					{#if refused}<p id="proof-refused" role="alert" class="mb-1 font-semibold text-held">
							{refused}
						</p>{/if}
					{#if by === 'pin'}<PinPad
							id="proof-secret"
							bind:value={secret}
							bind:input={pinInput}
							invalid={refused !== null}
							describedBy={refused ? 'proof-refused' : undefined}
						/>
					{:else}<input
							id="proof-secret"
							bind:this={passwordInput}
							bind:value={secret}
							type={by === 'code' ? 'text' : 'password'}
							autocomplete={by === 'code' ? 'one-time-code' : 'current-password'}
							required
							aria-invalid={refused ? 'true' : undefined}
							aria-describedby={refused ? 'proof-refused' : undefined}
							class="w-full"
						/>{/if}
				</div>
				<div class="flex flex-wrap items-center justify-between gap-3">
					{#if takesPin}<button
							type="button"
							class="linkish min-h-11"
							onclick={() => (chosen = by === 'pin' ? 'password' : 'pin')}
							>{by === 'pin' ? 'With my password' : 'With my PIN'}</button
						>{/if}
					<span class="ml-auto flex gap-3"
						><Dialog.Close class="button">Not now</Dialog.Close>{#if by !== 'pin'}<button
								class="button primary">Go on</button
							>{/if}</span
					>
				</div>
			</form>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
