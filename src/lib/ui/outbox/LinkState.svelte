<script lang="ts">
	/** Whether the server is there, and what waits on this device for it or for its person. */
	import { outbox } from './outbox.svelte';

	const MARKS = { live: '●', reconnecting: '◌', offline: '◌' } as Record<string, string>;
	const count = $derived(outbox.waiting.length);
	const sending = $derived(outbox.link === 'live' && count > 0);
	const button = $derived(
		outbox.link === 'signed out'
			? { says: 'sign in here', does: () => outbox.enter() }
			: outbox.link === 'unproven'
				? { says: 'type your PIN', does: () => outbox.prove() }
				: null
	);
	const WORDS: Partial<Record<typeof outbox.link, string>> = {
		'signed out': 'signed out, ',
		unproven: '',
		'someone else': 'someone else is signed in'
	};
	const word = $derived(sending ? 'sending' : (WORDS[outbox.link] ?? outbox.link));
	const rest = $derived(
		[
			...(count || outbox.link !== 'live' ? [`${count} unsent`] : []),
			...(outbox.unkept ? ['this device keeps nothing'] : []),
			...outbox.ofOthers.map((other) => `${other.count} of ${other.name}, sent when they sign in`)
		].map((part) => `, ${part}`)
	);
</script>

<span
	class="link"
	role="status"
	data-link={outbox.link}
	class:calm={outbox.link === 'live' && !outbox.unkept}
	><span aria-hidden="true">{sending ? '◌' : (MARKS[outbox.link] ?? '■')}</span>
	{word}{#if button}<button class="linkish" onclick={() => void button.does()}>{button.says}</button
		>{/if}{rest.join('')}</span
>

<style>
	.link {
		color: var(--held);
		font-weight: 700;
	}
	.link.calm {
		color: var(--ready);
		font-weight: inherit;
		white-space: nowrap;
	}
</style>
