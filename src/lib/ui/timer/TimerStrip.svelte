<script lang="ts">
	/** Holds that run, on every page, so that another item can be done meanwhile. */
	import { sound } from '../sound/sounds';
	import { say } from '../sound/voice';
	import { minutesAndSeconds, secondsLeft, serverClock } from './clock.svelte';

	interface Props {
		timers: readonly {
			id: string;
			tag: string;
			seconds: number;
			startedAt: Date;
			href: string;
			/** What is to be done once it is over. */
			over: string;
		}[];
	}
	let { timers }: Props = $props();
	/** Clocks that were seen to run, and have not sounded yet. */
	let running: readonly string[] = [];
	$effect(() => {
		const now = timers.map((timer) => ({
			...timer,
			left: secondsLeft(timer.startedAt, timer.seconds, serverClock.now)
		}));
		const over = now.filter(({ id, left }) => left === 0 && running.includes(id));
		running = now.filter(({ left }) => left > 0).map(({ id }) => id);
		if (!over.length) return;
		sound('over');
		say(over.map(({ tag, over: words }) => `${tag}: ${words}`).join('. '));
	});
</script>

{#if timers.length}
	<ul aria-label="Running timers" class="no-print flex flex-wrap gap-2">
		{#each timers as timer (timer.id)}
			{@const left = secondsLeft(timer.startedAt, timer.seconds, serverClock.now)}
			<li>
				<a
					href={timer.href}
					class="inline-flex min-h-11 items-center gap-2 border-[1.5px] px-3 no-underline {left
						? 'border-ink'
						: 'border-held bg-heldtint font-bold'}"
					><span class="tag">{timer.tag}</span>
					{#if left}<span class="font-mono">{minutesAndSeconds(left)}</span
						>{:else}{timer.over}{/if}</a
				>
			</li>
		{/each}
	</ul>
{/if}
