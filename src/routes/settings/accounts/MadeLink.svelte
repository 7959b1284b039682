<script lang="ts">
	/** A link that lets a person in once, shown once. */
	import Notice from '$lib/ui/form/Notice.svelte';

	interface Props {
		link: string;
		name: string;
	}
	let { link, name }: Props = $props();
	let copied = $state(false);

	async function copy() {
		await navigator.clipboard.writeText(link);
		copied = true;
	}
</script>

<Notice kind="good">
	<p>
		Give this link to {name}, by a way that only they read. It opens once, for 72 hours, and is
		shown only now.
	</p>
	<p class="mt-1 font-mono break-all" data-invite>{link}</p>
	<button type="button" class="button mt-2" onclick={() => void copy()}
		>{copied ? 'Copied' : 'Copy it'}</button
	>
</Notice>
