<script lang="ts">
	/** One thing as it is seen: good, with a fault, or with what only looks like one. Said in words to who does not see it. */
	import { PLAIN, type Vary } from '$core/drawings/mark';
	import Marks from './Marks.svelte';
	import { SUBJECTS, type SubjectKey } from '$core/drawings/subjects';

	interface Props {
		subject: SubjectKey;
		/** A code of its faults, "near", or null where it is good. */
		what?: string | null;
		vary?: Vary;
		/** Where words beside it say the same already. */
		silent?: boolean;
		class?: string;
	}
	let { subject, what = null, vary = PLAIN, silent = false, class: kind = '' }: Props = $props();
	const of = $derived(SUBJECTS[subject]);
	const marks = $derived(of.draw(what, vary));
	const says = $derived(
		`${of.name}: ${what === null ? of.good : what === 'near' ? (of.near ?? of.good) : (of.faults[what] ?? '')}`
	);
</script>

<Marks {marks} label={silent ? undefined : says} class={kind} />
