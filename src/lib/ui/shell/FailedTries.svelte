<script lang="ts">
	/** Says that somebody tried to get in under this name, until it has been seen. */
	import { enhance } from '../form/enhance';
	import Notice from '../form/Notice.svelte';

	interface Props {
		tries: number;
	}
	let { tries }: Props = $props();
</script>

<div class="no-print mb-3">
	<Notice kind="caution">
		<p>
			{tries === 1 ? 'One try' : `${tries} tries`} to get in under your name failed since you were here.
			Was it not you? Choose another password and PIN under
			<a class="linkish" href="/settings">Settings</a>.
		</p>
		<form method="post" action="/settings?/seen" use:enhance>
			<button class="linkish min-h-11">Seen</button>
		</form>
	</Notice>
</div>
