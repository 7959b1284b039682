<script lang="ts">
	/** Lets a tablet beside the bench follow what is done here: paired by a code that holds once. */
	import { onDestroy } from 'svelte';
	import type { ScreenShows } from '$core/access/screen';
	import { freshId } from '$lib/fresh-id';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { personHeaders } from '$lib/ui/shell/person';

	interface Props {
		shows: ScreenShows;
		/** Something goes on that can be followed; a screen that follows stays until the page is left. */
		offered?: boolean;
	}
	let { shows, offered = true }: Props = $props();
	let screen = $state.raw<{ id: string; code: string; link: string; qr: string } | null>(null);
	let refusal = $state<string | null>(null);
	let asking = $state(false);
	/** The code was seen and is put away; the screen goes on. */
	let folded = $state(false);
	const AWAY = 'The server is away: a second screen needs it.';

	async function ask(path: string, method: string, body?: unknown) {
		const response = await fetch(`/api/screens${path}`, {
			method,
			headers: { 'content-type': 'application/json', ...personHeaders() },
			// A page that is left still takes its screen away.
			keepalive: method === 'DELETE',
			...(body ? { body: JSON.stringify(body) } : {})
		}).catch(() => null);
		const said = (await response?.json().catch(() => null)) as
			| { message?: string; lit?: boolean; code?: string; link?: string; qr?: string }
			| null
			| undefined;
		return { ok: response?.ok ?? false, said };
	}
	async function open() {
		[asking, refusal] = [true, null];
		const id = freshId();
		const { ok, said } = await ask('', 'POST', { id, shows });
		asking = false;
		if (!ok || !said?.code) return void (refusal = said?.message ?? AWAY);
		[screen, folded] = [{ id, code: said.code, link: said.link ?? '', qr: said.qr ?? '' }, false];
	}
	function end() {
		if (screen) void ask(`/${screen.id}`, 'DELETE');
		screen = null;
	}
	/** What was shown last waits no longer than this, ms: one change is one message. */
	const SETTLES_MS = 150;
	$effect(() => {
		const [id, next] = [screen?.id, shows];
		if (!id) return;
		const later = setTimeout(async () => {
			const { ok, said } = await ask(`/${id}`, 'PUT', { shows: next });
			if (!ok && said) [screen, refusal] = [null, said.message ?? AWAY];
			// Its code is used up.
			if (said?.lit) folded = true;
		}, SETTLES_MS);
		return () => clearTimeout(later);
	});
	onDestroy(end);
</script>

<svelte:window onpagehide={end} />
{#if screen && !folded}
	<div
		class="my-2 grid max-w-[34rem] grid-cols-[9rem_1fr] gap-4 border-2 border-ink bg-sheet p-3 text-left"
	>
		<div class="self-start bg-white p-2 [&_svg]:h-auto [&_svg]:w-full">
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn on the server from the address of this site -->
			{@html screen.qr}
		</div>
		<div class="grid content-between gap-2">
			<p>
				On the tablet: scan this, or open <b class="break-all">{screen.link.split('?')[0]}</b> and type
			</p>
			<p class="tag text-[1.6rem]" aria-label="Code of the second screen">{screen.code}</p>
			<p class="text-soft text-[0.9rem]">
				Holds once, for five minutes. It sees this and nothing else, until you leave.
			</p>
			<p class="flex flex-wrap gap-2">
				<button type="button" class="button" onclick={() => (folded = true)}>Hide the code</button>
				<button type="button" class="linkish min-h-11" onclick={end}>End it</button>
			</p>
		</div>
	</div>
{:else if offered || screen}
	<button
		type="button"
		class={['button', screen && 'primary']}
		aria-pressed={screen !== null}
		disabled={asking}
		onclick={() => (screen ? (folded = false) : void open())}>Second screen</button
	>
{/if}
{#if refusal}<Notice kind="refusal"><p>{refusal}</p></Notice>{/if}
