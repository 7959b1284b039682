<script lang="ts">
	/** A list on paper, once for each item: the numbers of the screen, drawings, boxes, and a code that finds it again. */
	import { subjectsAt } from '$core/drawings/at';
	import { SUBJECTS } from '$core/drawings/subjects';
	import { rejectCode } from '$core/data/reject-codes';
	import Drawing from '$lib/ui/drawings/Drawing.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data } = $props();
	const { procedure } = $derived(data);
	/** The first thing that is looked at in a step, and the first of its faults there. */
	const drawn = (step: NonNullable<typeof procedure>['steps'][number]) => {
		const subject = procedure && subjectsAt(procedure.family, step)[0];
		const bad = subject && step.rejects.find((code) => code in SUBJECTS[subject].faults);
		return subject && bad ? { subject, bad } : null;
	};
</script>

<svelte:head><title>Sheets · Grevan</title></svelte:head>
<div class="no-print mb-5 flex flex-wrap items-center gap-4">
	<a class="linkish" href="/items">Items</a>
	<h1>{data.sheets.length} {data.sheets.length === 1 ? 'sheet' : 'sheets'}</h1>
	{#if data.offered.length > 1}<form
			method="get"
			class="flex items-center gap-2"
			data-sveltekit-keepfocus
		>
			<input type="hidden" name="tags" value={data.tags.join(',')} />
			<label class="label" for="procedure">List</label>
			<select
				id="procedure"
				name="procedure"
				value={procedure?.key}
				onchange={(event) => event.currentTarget.form?.requestSubmit()}
				>{#each data.offered as one (one.key)}<option value={one.key}>{one.name}</option
					>{/each}</select
			>
		</form>{/if}
	<button class="button primary ml-auto" onclick={() => print()}>Print</button>
</div>
{#if data.others.length}<div class="no-print mb-4">
		<Notice kind="caution"
			><p>Of another kind, so not on this list: {data.others.join(', ')}.</p></Notice
		>
	</div>{/if}
{#if data.missing.length}<div class="no-print mb-4">
		<Notice kind="caution"><p>Not in the register: {data.missing.join(', ')}.</p></Notice>
	</div>{/if}
{#if !procedure}<p class="no-print">
		Choose items of one kind in the register, or open an item, and ask for its sheet there.
	</p>
{:else}
	{#each data.sheets as sheet (sheet.tag)}
		<article
			class="mx-auto mb-8 max-w-[50rem] break-after-page border-2 border-ink bg-sheet p-6 print:border-0 print:p-0"
			aria-label="Sheet of {sheet.tag}"
		>
			<header class="flex items-start gap-6 border-b-2 border-ink pb-3">
				<div class="flex-1">
					<h2 class="text-[1.6rem]! text-ink!">
						<span class="font-mono">{sheet.tag}</span>
						{procedure.name}
					</h2>
					<p>{sheet.model}, {sheet.size} {sheet.serial ? `· serial ${sheet.serial}` : ''}</p>
					<p class="mt-3 flex flex-wrap gap-x-6 gap-y-2">
						<span>Day <span class="line w-32"></span></span>
						<span>Who <span class="line w-40"></span></span>
						{#if procedure.steps.some((step) => step.secondPerson)}<span
								>Second person <span class="line w-40"></span></span
							>{/if}
					</p>
				</div>
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from a tag -->
				<div class="w-24 bg-white" aria-hidden="true">{@html sheet.qr}</div>
			</header>
			<ol>
				{#each procedure.steps as step, i (step.key)}
					{@const picture = drawn(step)}
					<li
						class="grid break-inside-avoid grid-cols-[2rem_minmax(0,1fr)_8.5rem_10rem] items-center gap-x-3 border-b border-rule py-1 text-[0.92rem] leading-tight"
					>
						<b class="font-mono">{i + 1}</b>
						<div>
							<b>{step.title}</b>{step.ifFitted ? ', if fitted' : ''}{step.secondPerson
								? ', second person'
								: ''}
							<span class="block text-[0.86rem]">{step.good}</span>
							<span class="block font-mono text-[0.76rem]"
								>{step.rejects
									.map((code) => `${code} ${rejectCode(code).name.toLowerCase()}`)
									.join(' · ')}</span
							>
						</div>
						<div class="grid grid-cols-2 gap-1">
							{#if picture}<Drawing subject={picture.subject} silent />
								<figure>
									<Drawing subject={picture.subject} what={picture.bad} silent />
									<figcaption class="text-center font-mono text-[0.66rem] leading-none">
										{picture.bad}
									</figcaption>
								</figure>{/if}
						</div>
						<div class="flex items-end gap-2">
							{#if step.reading}<span class="line w-full"></span>{step.reading.kind === 'hold'
									? 'bar, s'
									: 'bar'}
							{:else}<span class="inline-block h-5 w-5 border-2 border-ink"></span> good
								<span class="line flex-1"></span>{/if}
						</div>
					</li>
				{/each}
			</ol>
			<p class="mt-3 text-[0.86rem]">
				Tick what is good; else write its code, and n where a part is not fitted. A reading: what
				the gauge showed; a hold: before, after, seconds. Then scan the code and type it in: until
				that is done the item counts as not inspected.
			</p>
		</article>
	{/each}
{/if}

<style>
	.line {
		display: inline-block;
		height: 1.3rem;
		border-bottom: 1.5px solid var(--ink);
	}
	@media print {
		article {
			max-width: none;
		}
	}
</style>
