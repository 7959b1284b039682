<script lang="ts">
	/** The device keeps nothing and the server cannot be reached: what was given lives on this page alone. */
	import Notice from '../form/Notice.svelte';
	import { outbox } from './outbox.svelte';
	import Sheet from './Sheet.svelte';

	const count = $derived(outbox.waiting.length);
	const alone = $derived(outbox.unkept && count > 0 && outbox.link !== 'live');

	/** The browser asks before such a page is left. */
	function hold(event: BeforeUnloadEvent) {
		if (alone) event.preventDefault();
	}
</script>

<svelte:window onbeforeunload={hold} />
{#if alone}
	<div class="no-print mb-3">
		<Notice kind="refusal">
			<p>
				<b>Do not close or reload this page.</b> This device keeps nothing: its storage is full or
				refused.
				{count === 1 ? 'One answer is' : `${count} answers are`} on this page only, and gone with it.
				The page goes on trying to send.
			</p>
			<p class="mt-2"><Sheet parcels={outbox.waiting} /></p>
		</Notice>
	</div>
{/if}
