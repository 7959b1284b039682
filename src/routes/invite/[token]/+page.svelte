<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import SecretField from '$lib/ui/form/SecretField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { PASSWORD_LEAST } from '$core/access/secrets';

	let { data, form } = $props();
	const at = (path: string) => (form?.path === path ? form.message : null);
</script>

<svelte:head><title>Choose a password · Grevan</title></svelte:head>
<div class="max-w-[26rem] pt-[6vh]">
	<h1>{data.purpose === 'invite' ? `Welcome, ${data.name}` : 'Choose a new password'}</h1>
	<p class="text-soft mt-1">
		Your address is <b>{data.email}</b>. {data.purpose === 'invite'
			? 'Choose the password that you sign in with.'
			: 'Wherever you are signed in now, you will be signed out.'}
	</p>
	<form method="post" use:enhance class="mt-6 grid gap-4">
		{#if form?.message && !form.path}<Notice kind="refusal"><p>{form.message}</p></Notice>{/if}
		<input type="hidden" name="email" value={data.email} autocomplete="username" />
		<SecretField
			id="password"
			name="password"
			label="Password"
			autocomplete="new-password"
			refusal={at('password')}
			hint="At least {PASSWORD_LEAST} characters; a few words are easy to keep in mind."
		/>
		<SecretField
			id="again"
			name="again"
			label="The same again"
			autocomplete="new-password"
			refusal={at('again')}
		/>
		<button class="button primary justify-self-start">Keep it</button>
	</form>
</div>
