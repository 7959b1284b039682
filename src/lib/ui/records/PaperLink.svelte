<script lang="ts">
	/** The paper of something in the record, as PDF. */
	interface Props {
		kind:
			| 'inspection'
			| 'bench-test'
			| 'repair'
			| 'air-test'
			| 'fill'
			| 'wash-batch'
			| 'hand-out'
			| 'cylinder'
			| 'item'
			| 'wearer'
			| 'task';
		id: string;
		words?: string;
		class?: string;
	}
	let { kind, id, words = 'Paper (PDF)', class: look = 'linkish' }: Props = $props();
</script>

<a
	class="{look} inline-flex min-h-11 items-center"
	href="/records/papers/{kind}/{encodeURIComponent(id)}.pdf"
	data-sveltekit-reload>{words}</a
>
