<script lang="ts">
	/** Before a fit test: who stands here, which mask is on, what was looked at; then it begins. */
	import { untrack } from 'svelte';
	import { agentsFor, beforeTest } from '$core/fit/agents';
	import { protocolSeconds } from '$core/fit/protocols';
	import { sequenceOf, sequenceSeconds } from '$core/fit/sequence';
	import { freshId } from '$lib/fresh-id';
	import { enhance } from '$lib/ui/form/enhance';
	import Field from '$lib/ui/form/Field.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';

	let { data, form } = $props();
	let id = $state(freshId());
	const refusal = $derived(form && 'refusal' in form ? (form.refusal ?? null) : null);
	const at = (path: string) => refusedAt(refusal, path);
	const FIELDS = [
		'number',
		'tag',
		'modelId',
		'size',
		'protocol',
		'agent',
		'before',
		'worn',
		'counter'
	];
	let method = $state<'quantitative' | 'qualitative'>(
		untrack(() => (data.counters.some(({ live }) => live) ? 'quantitative' : 'qualitative'))
	);
	let modelId = $state(
		untrack(() => data.models.find(({ name }) => name === data.asked.model)?.id ?? '')
	);
	let tag = $state(untrack(() => data.asked.tag));
	let key = $state('');
	let agentKey = $state('');
	let ticked = $state<string[]>([]);
	const mask = $derived(data.models.find((one) => one.id === modelId)?.mask ?? null);
	const protocols = $derived(
		data.protocols.filter(({ masks }) => mask === null || masks.includes(mask))
	);
	const protocol = $derived(protocols.find((one) => one.key === key) ?? protocols[0]);
	const agents = $derived(agentsFor(data.ruleSet, mask ?? 'half'));
	const agent = $derived(agents.find((one) => one.key === agentKey) ?? agents[0] ?? null);
	const list = $derived(beforeTest(method === 'qualitative' ? agent : null));
	const left = $derived(list.filter((one) => !ticked.includes(one.key)).length);
	/** A scanner ends with Enter: it leads on to the next field instead of sending the form. */
	function next(event: KeyboardEvent, to: string) {
		if (event.key !== 'Enter') return;
		event.preventDefault();
		document.getElementById(to)?.focus();
	}
	const minutes = (seconds: number) => `${Math.round(seconds / 60)} min`;
</script>

<svelte:head><title>Fit test · Grevan</title></svelte:head>
<p class="crumb">
	<a class="linkish" href="/people/{data.wearer.id}">{data.wearer.name}</a>
</p>
<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
	<h1>Fit test: {data.wearer.name}</h1>
	<a class="button ml-auto" href="/people/{data.wearer.id}/fit/paper">Type one in from paper</a>
</div>
{#if data.asked.again}<div class="mt-3">
		<Notice
			><p>Once more with the mask put on anew: off, straps loose, on again, seal check.</p></Notice
		>
	</div>{/if}
{#if data.wearer.beard}<div class="mt-3">
		<Notice kind="caution"
			><p>
				<b>A beard as last seen.</b> Nothing seals on it: shaved within a day, or no test.
			</p></Notice
		>
	</div>{/if}
<form
	method="post"
	class="mt-4 grid items-start gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]"
	use:enhance={() =>
		async ({ update }) => {
			await update({ reset: false });
			id = freshId();
		}}
>
	<input type="hidden" name="id" value={id} />
	<input type="hidden" name="againAfter" value={data.asked.again ?? ''} />
	<input type="hidden" name="mask" value={mask ?? 'half'} />
	<div class="grid gap-5">
		<FormRefusal refusal={refusal && FIELDS.includes(refusal.path ?? '') ? null : refusal} />
		<fieldset class="grid gap-4 sm:grid-cols-2">
			<legend class="label mb-1 text-[1.05rem]! font-semibold">Who, and in what</legend>
			<Field
				id="number"
				label="Badge of whoever stands here"
				refusal={at('number')}
				hint="Scan it, or type the number."
			>
				{#snippet children(field)}<!-- svelte-ignore a11y_autofocus -->
					<input
						{...field}
						name="number"
						autocomplete="off"
						autofocus
						class="w-full font-mono"
						onkeydown={(event) => next(event, 'tag')}
					/>{/snippet}
			</Field>
			<Field id="tag" label="Mask that is worn" refusal={at('tag')} hint="Scan its tag.">
				{#snippet children(field)}<input
						{...field}
						name="tag"
						bind:value={tag}
						autocomplete="off"
						class="tag w-full uppercase"
						onkeydown={(event) => next(event, tag ? 'worn' : 'modelId')}
					/>{/snippet}
			</Field>
			<Field
				id="modelId"
				label="Model"
				refusal={at('modelId')}
				hint={tag ? 'Comes with the tag.' : 'Where the mask carries no tag.'}
			>
				{#snippet children(field)}<select
						{...field}
						name="modelId"
						class="w-full"
						bind:value={modelId}
						><option value="">as the tag says</option>{#each data.models as one (one.id)}<option
								value={one.id}>{one.name}</option
							>{/each}</select
					>{/snippet}
			</Field>
			<PlainField
				name="size"
				label="Size"
				value={data.asked.size}
				refusal={at('size')}
				hint="As the tag says, where it has one."
			/>
			<PlainField
				id="worn"
				name="worn"
				label="Worn with it"
				placeholder={data.wearer.eyewear ? 'spectacle insert' : 'helmet, ear defenders'}
				refusal={at('worn')}
				hint={data.wearer.eyewear ? 'They need glasses.' : 'As at work.'}
			/>
		</fieldset>
		<fieldset>
			<legend class="label text-[1.05rem]! font-semibold">How</legend>
			<div class="mt-1 grid gap-2 sm:grid-cols-2">
				{#each [['quantitative', 'With the counter', 'a factor for each movement'], ['qualitative', 'By taste or smell', 'noticed or not; up to a factor of 10']] as const as [value, name, says] (value)}
					<label
						class={[
							'flex min-h-14 cursor-pointer items-center gap-3 rounded border-2 px-3 py-2',
							method === value ? 'border-ink bg-tint' : 'border-rule'
						]}
						><input type="radio" name="method" {value} bind:group={method} /><span
							><b>{name}</b><br /><span class="text-soft">{says}</span></span
						></label
					>
				{/each}
			</div>
			<div class="mt-3">
				{#if method === 'quantitative'}
					<Field id="protocol" label="Protocol" refusal={at('protocol')}>
						{#snippet children(field)}<select
								{...field}
								name="protocol"
								class="w-full max-w-[34rem]"
								value={protocol?.key}
								onchange={(event) => (key = event.currentTarget.value)}
								>{#each protocols as one (one.key)}<option value={one.key}
										>{one.name}: {one.exercises.length} movements, {minutes(
											sequenceSeconds(sequenceOf(one))
										)}</option
									>{/each}</select
							>{/snippet}
					</Field>
				{:else if agents.length === 0}
					<Notice kind="refusal"
						><p>
							Under the UK rule set a full-face mask is tested with a counter, never by taste.
						</p></Notice
					>
				{:else}
					<Field
						id="agent"
						label="Tasted or smelled"
						refusal={at('agent')}
						hint={agent ? `With ${agent.filter} on the mask.` : ''}
					>
						{#snippet children(field)}<select
								{...field}
								name="agent"
								class="w-full max-w-[34rem]"
								value={agent?.key}
								onchange={(event) => (agentKey = event.currentTarget.value)}
								>{#each agents as one (one.key)}<option value={one.key}>{one.name}</option
									>{/each}</select
							>{/snippet}
					</Field>
					{#if agent?.caution}<p class="mt-2 font-semibold text-held">{agent.caution}</p>{/if}
				{/if}
			</div>
		</fieldset>
	</div>
	<div class="grid gap-4 rounded border-2 border-ink bg-sheet p-4">
		<fieldset>
			<legend class="text-[1.15rem] font-semibold">Before the test</legend>
			{#if at('before')}<p class="font-semibold text-held" role="alert">{at('before')}</p>{/if}
			{#each list as one (one.key)}
				<label class="rowline flex min-h-12 cursor-pointer items-center gap-3 py-1"
					><input
						type="checkbox"
						name="before[]"
						value={one.key}
						bind:group={ticked}
						class="h-6 w-6 shrink-0"
					/>{one.text}</label
				>
			{/each}
		</fieldset>
		{#if method === 'quantitative'}
			{#if data.counters.length > 1}
				<Field id="counter" label="Counter" refusal={at('counter')}>
					{#snippet children(field)}<select {...field} name="counter" class="w-full"
							><option value="">the first that is free</option
							>{#each data.counters as one (one.counter)}<option value={one.counter}
									>Counter {one.counter}{one.live ? '' : ', not reached'}{one.test
										? `, testing ${one.test.name}`
										: ''}</option
								>{/each}</select
						>{/snippet}
				</Field>
			{:else if data.counters.length === 0}<p class="text-soft">
					No counter is connected: set GREVAN_FIT_COUNTER to its address, or type the test in from
					paper.
				</p>{/if}
			{#if data.faces.length}
				<details>
					<summary class="min-h-11 cursor-pointer content-center font-semibold"
						>Who stands before the simulated counter</summary
					>
					<div class="mt-1 grid grid-cols-2 gap-3">
						<label class="col-span-2"
							><span class="label">Face</span><select name="face" class="w-full"
								>{#each data.faces as face (face)}<option>{face}</option>{/each}</select
							></label
						>
						<label
							><span class="label">Counter</span><select name="fault" class="w-full"
								>{#each data.faults as fault (fault)}<option>{fault}</option>{/each}</select
							></label
						>
						<label
							><span class="label">Times as fast</span><input
								name="speed"
								value="10"
								inputmode="numeric"
								class="w-full font-mono"
							/></label
						>
					</div>
				</details>
			{/if}
		{/if}
		<button class="button primary" disabled={left > 0}
			>{left > 0
				? `${left} still to look at`
				: method === 'quantitative'
					? `Begin: ${protocol ? minutes(protocolSeconds(protocol)) : ''}`
					: 'Begin with the screening'}</button
		>
		<p class="text-soft text-[0.9rem]">A seal check is never a fit test.</p>
	</div>
</form>
