<script lang="ts">
	import { page } from '$app/state';
	import Notice from '$lib/ui/form/Notice.svelte';

	const TITLES: Record<number, string> = {
		403: 'Not allowed',
		404: 'Not found',
		409: 'Not possible now',
		503: 'The database does not answer'
	};
</script>

<svelte:head><title>{TITLES[page.status] ?? 'Something went wrong'} · Grevan</title></svelte:head>
<h1>{TITLES[page.status] ?? 'Something went wrong'}</h1>
<div class="mt-4 max-w-2xl"><Notice kind="refusal"><p>{page.error?.message}</p></Notice></div>
<p class="mt-4 flex gap-3">
	<a class="button" href={page.url.pathname + page.url.search} data-sveltekit-reload>Try again</a>
	<a class="button" href="/">To today</a>
</p>
