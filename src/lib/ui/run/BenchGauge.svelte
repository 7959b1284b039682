<script lang="ts">
	import { freshId } from '$lib/fresh-id';
	import { personHeaders } from '$lib/ui/shell/person';
	/** Takes a figure from the bench into the field; for the whistle it lets the set down and listens. */
	import { onDestroy } from 'svelte';
	import Reading from '$lib/ui/reading/Reading.svelte';

	interface Props {
		/** Address of the bench for this inspection. */
		bench: string;
		tag: string;
		step: string;
		whistle: boolean;
		onfigure: (bar: number) => void;
		/** Hears what the gauge shows while the set is let down. */
		onfall?: (bar: number) => void;
	}
	let { bench, tag, step, whistle, onfigure, onfall }: Props = $props();
	let refusal = $state<{ message: string; path: string | null } | null>(null);
	let falling = $state<number | null>(null);
	let events: EventSource | undefined;
	onDestroy(() => events?.close());

	const AWAY = 'The server is away: read the gauge yourself.';

	async function ask(connect = false) {
		refusal = null;
		const response = await fetch(bench, {
			method: 'POST',
			headers: { 'content-type': 'application/json', ...personHeaders() },
			body: JSON.stringify({ requestId: freshId(), step, connect })
		}).catch(() => null);
		const said = response
			? ((await response.json().catch(() => ({ message: AWAY }))) as {
					bar: number | null;
					message: string;
					path: string | null;
				})
			: null;
		if (!response?.ok) refusal = { message: said?.message ?? AWAY, path: said?.path ?? null };
		else if (said && said.bar !== null) onfigure(said.bar);
		else listen();
	}

	/** Follows the gauge while the set is let down; when it whistles or is empty the figure is asked for. */
	function listen() {
		events?.close();
		events = new EventSource(`${bench}/events`);
		const show = (event: MessageEvent) => {
			falling = (JSON.parse(String(event.data)) as { highBar: number }).highBar;
			onfall?.(falling);
		};
		events.onmessage = show;
		events.addEventListener('ended', (event) => {
			show(event);
			events?.close();
			falling = null;
			void ask();
		});
	}
</script>

{#if falling !== null}
	<div class="mt-3">
		<Reading label="Let down, listening for the whistle" value={falling.toFixed(1)} unit="bar" />
	</div>
{:else}
	<button type="button" class="button mt-3" onclick={() => ask()}
		>{whistle ? 'Let it down on the bench and listen' : 'Read the bench'}</button
	>
{/if}
{#if refusal}
	<p class="mt-2 font-semibold text-held" role="alert">
		{refusal.message}
		{#if refusal.path === 'connect'}<button type="button" class="linkish" onclick={() => ask(true)}
				>Put {tag} on it</button
			>{/if}
	</p>
{/if}
