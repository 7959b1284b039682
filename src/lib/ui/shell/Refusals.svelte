<script lang="ts">
	/** What the server did not take, said on every page until it has been seen. */
	import Notice from '../form/Notice.svelte';
	import { outbox } from './outbox.svelte';
</script>

{#each outbox.refusals as refusal (refusal.id)}
	<div class="no-print mb-3">
		<Notice kind="refusal">
			<p><b class="tag">{refusal.name}</b> Not taken: {refusal.message}</p>
			<p class="mt-1 flex flex-wrap gap-4">
				<a class="linkish" href="/runs/{refusal.about}">Open it</a>
				<button type="button" class="linkish" onclick={() => outbox.seen(refusal.id)}>Seen</button>
			</p>
		</Notice>
	</div>
{/each}
