<script lang="ts">
	/** A labelled input of a form that is sent as it stands; the form keeps what was entered. */
	import type { HTMLInputAttributes } from 'svelte/elements';

	interface Props extends HTMLInputAttributes {
		label: string;
		/** Figures and tags. */
		mono?: boolean;
	}
	let { label, mono = false, ...input }: Props = $props();
</script>

<label class="block"
	><span class="label">{label}</span><input
		{...input}
		class="w-full {mono ? 'font-mono' : ''}"
	/></label
>
