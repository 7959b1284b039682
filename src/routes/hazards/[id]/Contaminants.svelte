<script lang="ts">
	/** The contaminants of a plan as rows, and the field that adds one. */
	import Plus from '@lucide/svelte/icons/plus';
	import type { Substance } from '$core/data/substance';
	import type { SubstanceLibrary } from '$core/data/substances';
	import {
		publishedLimit,
		type Contaminant,
		type ContaminantFact,
		type HazardFacts
	} from '$core/hazards/facts';
	import type { ConcentrationUnit } from '$core/units/concentration';
	import { limitUnitOf } from '$core/substances/record';
	import { nearest } from '$core/substances/nearest';
	import Row from './ContaminantRow.svelte';

	interface Props {
		facts: HazardFacts;
		library: SubstanceLibrary;
		/** Worked out, in the same order; empty while something is at fault. */
		resolved: Contaminant[];
		refusal: { path: string; message: string } | null;
		editable: boolean;
		/** Whether this person may keep a limit that is laxer than the published one. */
		mayKeepLaxer: boolean;
		/** Takes what the site says of a substance into the page's library. */
		learn: (substances: Substance[]) => void;
	}
	let {
		facts = $bindable(),
		library,
		resolved,
		refusal,
		editable,
		mayKeepLaxer,
		learn
	}: Props = $props();
	let word = $state('');
	let unknown = $state<string | null>(null);
	/** What is spelled most like a word that is not there. */
	let near = $state.raw<Substance[]>([]);
	/** Takes one of them in place of the row that was just added. */
	function takeInstead(substance: Substance) {
		facts.contaminants.pop();
		void addWord(substance.name);
	}
	let offered = $state<Substance[]>([]);
	const WAIT_MS = 180;
	let timer: ReturnType<typeof setTimeout> | undefined;

	async function search(text: string): Promise<Substance[]> {
		try {
			const response = await fetch(`/api/substances?q=${encodeURIComponent(text)}`);
			if (!response.ok) return [];
			return ((await response.json()) as { substances: Substance[] }).substances;
		} catch {
			return [];
		}
	}
	function offer() {
		clearTimeout(timer);
		const text = word.trim();
		if (text.length < 2) return;
		timer = setTimeout(() => void search(text).then((found) => (offered = found)), WAIT_MS);
	}
	function add(event: SubmitEvent) {
		event.preventDefault();
		const text = word.trim();
		if (text) void addWord(text);
	}
	async function addWord(text: string) {
		word = '';
		let found = library.find(text);
		// The site's own substances are asked for; a correction of a shipped one comes with it.
		const theirs = await search(text);
		const lower = text.toLowerCase();
		const exact = theirs.find((s) =>
			found
				? s.key === found.key
				: [s.key, s.name, s.cas ?? '', ...s.synonyms].some((w) => w.toLowerCase() === lower)
		);
		if (exact) {
			learn([exact]);
			found = exact;
		}
		const unit = found ? (publishedLimit(found, facts.ruleSet)?.unit ?? limitUnitOf(found)) : 'ppm';
		const row: ContaminantFact = found
			? { substance: found.key, name: found.name, form: found.form, concentration: null }
			: { name: text, form: 'vapour', concentration: null };
		units[facts.contaminants.length] = unit;
		facts.contaminants.push(row);
		unknown = found
			? null
			: `“${text}” is not in the library. It is kept as your own contaminant: enter its molar mass, boiling point and limit.`;
		near = found ? [] : nearest(text, 4, library);
	}
	/** Unit chosen for rows that have no figure yet. */
	let units = $state<Record<number, ConcentrationUnit>>({});
	const at = (i: number) =>
		refusal?.path.startsWith(`contaminants[${i}]`) ? refusal.message : null;
</script>

<h2 id="in-air">In the air</h2>
{#if facts.contaminants.length === 0}
	<p class="mt-1 mb-2">Nothing entered yet. An unknown air counts as immediately dangerous.</p>
{/if}
<ul aria-labelledby="in-air">
	{#each facts.contaminants as row, i (i)}
		<Row
			bind:row={facts.contaminants[i] as ContaminantFact}
			{i}
			substance={row.substance ? library.find(row.substance) : undefined}
			resolved={resolved[i]}
			ruleSet={facts.ruleSet}
			message={at(i)}
			{editable}
			{mayKeepLaxer}
			bind:unit={units[i]}
			remove={() => facts.contaminants.splice(i, 1)}
		/>
	{/each}
</ul>
{#if editable}
	<form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={add}>
		<div class="flex-1">
			<label class="label" for="add">Add a contaminant</label>
			<input
				id="add"
				list="substances"
				bind:value={word}
				oninput={offer}
				autocomplete="off"
				class="w-full max-w-96"
				placeholder="name, synonym or CAS number"
			/>
			<datalist id="substances"
				>{#each offered as s (s.key)}<option value={s.name}
						>{[s.cas, ...s.synonyms].filter(Boolean).join(', ')}</option
					>{/each}</datalist
			>
		</div>
		<button class="button"><Plus size={18} aria-hidden="true" /> Add</button>
	</form>
	{#if unknown}<p class="mt-2 text-due">{unknown}</p>{/if}
	{#if near.length}
		<p class="mt-1">Did you mean:</p>
		<div class="mt-1 flex flex-wrap gap-2">
			{#each near as one (one.key)}<button
					type="button"
					class="button"
					onclick={() => takeInstead(one)}>{one.name}</button
				>{/each}
		</div>
	{/if}
{/if}
