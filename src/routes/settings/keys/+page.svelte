<script lang="ts">
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { refusedAt } from '$lib/ui/form/refused';
	import { siteMoment } from '$lib/ui/time/moments';

	let { data, form } = $props();
	const refusal = $derived(form && 'refusal' in form ? form.refusal : null);
	const SCOPES = {
		calc: 'asks the calculation interface only',
		read: 'reads what you may read',
		write: 'changes what you may change, but never signs'
	};
</script>

<svelte:head><title>Keys for programs · Grevan</title></svelte:head>
<p class="text-soft mt-4 max-w-prose">
	A program comes in with a key, in <code class="font-mono">x-api-key</code> or as a bearer token.
	It works in your name, as far as you allow. The interface is described under
	<a class="linkish" href="/records/interface">Calculation interface</a>.
</p>
{#if form && 'made' in form}<div class="mt-4 max-w-prose">
		<Notice kind="good">
			<p>This is the key. It is shown only now; only a hash of it is kept.</p>
			<p class="mt-1 font-mono text-[1.1rem] font-semibold break-all" role="status">{form.made}</p>
		</Notice>
	</div>{/if}
<div class="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-[22rem_1fr]">
	<form method="post" action="?/make" use:enhance class="grid content-start gap-3">
		<h2 class="text-ink! text-[1.1rem]!">Make a key</h2>
		{#if refusal && !refusal.path}<FormRefusal {refusal} />{/if}
		<PlainField
			id="key-name"
			label="What it is for"
			name="name"
			maxlength={60}
			required
			refusal={refusedAt(refusal, 'name')}
		/>
		<Field id="key-scope" label="How far it reaches">
			{#snippet children(field)}<select {...field} name="scope" class="w-full">
					{#each Object.entries(SCOPES) as [scope, words] (scope)}<option value={scope}
							>{scope}: {words}</option
						>{/each}
				</select>{/snippet}
		</Field>
		<Field id="key-days" label="How long it holds" refusal={refusedAt(refusal, 'days')}>
			{#snippet children(field)}<select {...field} name="days" class="w-full">
					<option value="30">30 days</option><option value="90" selected>90 days</option><option
						value="365">a year</option
					><option value="730">two years</option>
				</select>{/snippet}
		</Field>
		<button class="button primary justify-self-start">Make it</button>
	</form>
	<section aria-labelledby="keys-title">
		<h2 id="keys-title" class="text-ink! text-[1.1rem]!">Keys that hold</h2>
		{#if data.keys.length}
			<ul class="mt-1">
				{#each data.keys as key (key.id)}
					<li class="rowline flex flex-wrap items-center gap-x-5 gap-y-1 py-2">
						<span class="min-w-[14rem] flex-1"
							><b>{key.name}</b> <span class="font-mono">{key.start}...</span>, {key.scope}<br />
							<span class="text-soft">of {key.whose}, made {siteMoment(key.createdAt)}</span></span
						>
						<span class="text-soft"
							>{key.expiresAt && key.expiresAt < new Date(data.serverNow)
								? 'lapsed'
								: key.expiresAt
									? `until ${siteMoment(key.expiresAt)}`
									: 'until it is revoked'};
							{key.lastUsedAt ? `used ${siteMoment(key.lastUsedAt)}` : 'never used'}</span
						>
						<form method="post" action="?/revoke" use:enhance>
							<input type="hidden" name="id" value={key.id} />
							<button class="linkish min-h-11">Revoke</button>
						</form>
					</li>
				{/each}
			</ul>
		{:else}<p class="text-soft mt-2">
				None. A laboratory system or a spreadsheet that asks for numbers needs one.
			</p>{/if}
	</section>
</div>
