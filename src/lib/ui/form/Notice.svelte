<script lang="ts">
	/** Something said plainly, near where it matters. */
	import type { Snippet } from 'svelte';

	interface Props {
		kind?: 'refusal' | 'caution' | 'plain' | 'good';
		children: Snippet;
	}
	let { kind = 'plain', children }: Props = $props();
	const LOOK = {
		refusal: 'border-held bg-heldtint',
		caution: 'border-due bg-duetint',
		plain: 'border-accent bg-tint',
		good: 'border-ready bg-tint'
	};
</script>

<div class="border-l-4 px-4 py-3 {LOOK[kind]}" role={kind === 'refusal' ? 'alert' : undefined}>
	{@render children()}
</div>
