<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import SecretField from '$lib/ui/form/SecretField.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { PASSWORD_LEAST } from '$core/access/secrets';

	let { form } = $props();
	const said = $derived(form && 'message' in form ? form : null);
	const at = (path: string) => (said?.path === path ? said.message : null);
	const FIELDS = ['code', 'name', 'initials', 'email', 'password', 'again'];
</script>

<svelte:head><title>Set-up · Grevan</title></svelte:head>
<h1 class="mt-6 text-[2.2rem]!">Grevan</h1>
<p class="text-soft text-[1.1rem]">A new site. The first account keeps all the others.</p>
<form
	method="post"
	class="mt-6 grid max-w-[28rem] gap-4"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
>
	{#if said && !FIELDS.includes(said.path ?? '')}<Notice kind="refusal"
			><p role="alert">{said.message}</p></Notice
		>{/if}
	<PlainField
		name="code"
		label="One-time code"
		hint="The start of Grevan printed it, beside the address. It opens once."
		autocomplete="off"
		required
		mono
		width="w-full tracking-[0.12em] uppercase"
		refusal={at('code')}
	/>
	<PlainField name="name" label="Your name" autocomplete="name" required refusal={at('name')} />
	<PlainField
		name="initials"
		label="Initials"
		hint="They stand on every filter that you open."
		maxlength={4}
		required
		width="w-24"
		refusal={at('initials')}
	/>
	<PlainField
		name="email"
		label="E-mail address"
		type="email"
		autocomplete="username"
		required
		refusal={at('email')}
	/>
	<SecretField
		id="password"
		name="password"
		label="Password"
		autocomplete="new-password"
		hint="At least {PASSWORD_LEAST} characters; a few words are easy to keep in mind."
		refusal={at('password')}
	/>
	<SecretField
		id="again"
		name="again"
		label="The same again"
		autocomplete="new-password"
		refusal={at('again')}
	/>
	<button class="button primary justify-self-start">Begin the set-up</button>
</form>
<p class="text-soft mt-6 max-w-[28rem]">
	Only looking? Start it with its demo first: <span class="font-mono">npm start</span> without
	<span class="font-mono">GREVAN_DEMO=0</span>, on a database of its own.
</p>
