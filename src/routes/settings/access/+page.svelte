<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import { SITE_ACCESS } from '$core/access/session';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const LIMITS = [
		{
			name: 'idleMinutes',
			label: 'Minutes without use',
			what: 'A session on a shared bench ends after so long.'
		},
		{ name: 'wholeHours', label: 'Hours in all', what: 'Every session ends after so long.' },
		{
			name: 'proofMinutes',
			label: 'Minutes before signing',
			what: 'Who typed a PIN or password within so long is not asked again before signing, releasing or approving.'
		}
	] as const;
</script>

<svelte:head><title>Who signs, who gets in · Grevan</title></svelte:head>
<form
	method="post"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
	class="mt-5 grid max-w-[44rem] gap-6"
>
	{#if form && 'done' in form}<Notice kind="good"><p role="status">Kept.</p></Notice>{/if}
	{#if refusal && !refusal.path}<FormRefusal {refusal} />{/if}
	<fieldset>
		<legend class="label">Two people</legend>
		<label class="flex min-h-11 items-start gap-3 pt-2"
			><input
				type="checkbox"
				name="twoPeople"
				checked={data.site.twoPeople}
				class="mt-0.5 shrink-0"
			/>
			<span
				>Who wrote a plan does not approve it; who repaired does not release.
				<span class="text-soft"
					>On unless a site has one person only. A stop fault asks for two in any case.</span
				></span
			></label
		>
	</fieldset>
	{#each LIMITS as limit (limit.name)}
		<PlainField
			id={limit.name}
			label={limit.label}
			name={limit.name}
			inputmode="numeric"
			value={data.site[limit.name]}
			required
			mono
			width="w-28"
			refusal={refusedAt(refusal, limit.name)}
			hint="{limit.what} Usual: {SITE_ACCESS[limit.name]}."
		/>
	{/each}
	<fieldset>
		<legend class="label">Two-step sign-in is asked of every</legend>
		{#each data.roles as role (role)}<label class="flex min-h-11 items-center gap-3"
				><input
					type="checkbox"
					name="roles[]"
					value={role}
					checked={data.site.twoStepRoles.includes(role)}
				/>
				{role}</label
			>{/each}
		<p class="text-soft text-[0.9rem]">
			Whoever has none yet sets it up before anything else. Set up your own first.
		</p>
	</fieldset>
	<button class="button primary justify-self-start">Keep these</button>
</form>
