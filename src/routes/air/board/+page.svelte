<script lang="ts">
	/** The entry board: who is in, what each has left, when each turns, is out, is warned. */
	import { onMount, untrack } from 'svelte';
	import { browser } from '$app/environment';
	import { alarmsToShow, callOut, teamTurnsAt, type AlarmKind } from '$core/air/entry';
	import { jumpWords } from '$core/air/steady-time';
	import { freshId } from '$lib/fresh-id';
	import AlarmMark from '$lib/ui/air/AlarmMark.svelte';
	import { AlarmSound } from '$lib/ui/air/alarm-sound.svelte';
	import FormRefusal from '$lib/ui/form/FormRefusal.svelte';
	import { sendAction } from '$lib/ui/form/send';
	import Notice from '$lib/ui/form/Notice.svelte';
	import { minutesAndSeconds, serverClock } from '$lib/ui/timer/clock.svelte';
	import type { Board, BoardTeam } from './board';
	import NewTeam from './NewTeam.svelte';
	import WearerRow from './WearerRow.svelte';
	import { siteClock } from '$lib/ui/time/moments';

	let { data } = $props();
	let board = $state.raw<Board>(untrack(() => data.board));
	let live = $state(true);
	/** The session ended: what is known goes on being counted, but nothing more is heard or told. */
	let signedOut = $state(false);
	let refusal = $state<{ message: string } | null>(null);
	let opened = $state(untrack(() => data.team !== null || data.board.teams.length === 0));
	const sound = new AlarmSound();
	/** Without word from the server for so long this screen says that it is cut off, ms. */
	const SILENT_MS = 12_000;
	let heardAt = $state(untrack(() => data.board.now));

	/** On the server the clock of pages does not run. */
	const now = $derived(browser ? serverClock.now : data.board.now);
	const cutOff = $derived(!live || now - heardAt > SILENT_MS);
	const alarms = $derived(
		board.teams.flatMap((team) =>
			team.wearers
				.filter((wearer) => wearer.endedAt === null)
				.flatMap((wearer) =>
					callOut(alarmsToShow(wearer.plan, team.turnedAt, wearer.raised, now)).map((alarm) => ({
						...alarm,
						wearer
					}))
				)
		)
	);
	$effect(() => sound.want(alarms.length > 0));

	onMount(() => {
		serverClock.set(data.board.now);
		heardAt = data.board.now;
		const events = new EventSource('/api/board/events');
		events.onmessage = (event) => {
			board = JSON.parse(String(event.data)) as Board;
			serverClock.set(board.now);
			heardAt = board.now;
			live = true;
		};
		events.addEventListener('signed-out', () => (signedOut = true));
		events.onerror = () => (live = false);
		return () => {
			events.close();
			sound.stop();
		};
	});

	/** @returns why it was refused; null where it was done */
	const send = async (action: string, fields: Record<string, string>) =>
		(await sendAction(`?/${action}`, fields)).refused;
	const WORDS: Record<AlarmKind, string> = {
		'turn back': 'Turn back',
		'be out': 'Be out now',
		warning: 'Warning pressure',
		'telemetry lost': 'Telemetry lost: ask for the gauge',
		'check gauge': 'Gauge jumped: ask for it'
	};
	const inside = (team: BoardTeam) => team.wearers.filter((wearer) => wearer.endedAt === null);
	/** Who governs a team: the one who has to turn first. */
	const governs = (team: BoardTeam) => {
		const turnAt = teamTurnsAt(inside(team).map((wearer) => wearer.plan));
		return { turnAt, wearer: inside(team).find((wearer) => wearer.plan.turnAt === turnAt) };
	};
	const left = (at: number) => minutesAndSeconds(Math.ceil((at - now) / 1000));
	const channels = $derived(
		board.teams.flatMap(inside).flatMap((wearer) => (wearer.channel ? [wearer.channel] : []))
	);
	const ids = freshId;
</script>

<svelte:head><title>Entry board · Grevan</title></svelte:head>
<div class="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
	<p class="font-mono text-[1.5rem] font-semibold" aria-label="Server time">
		{siteClock(now)}
	</p>
	<p class={cutOff ? 'font-bold text-held' : 'text-soft'} role="status">
		{#if signedOut}You are signed out here. Countdowns go on from what this screen knew last; <a
				class="linkish"
				href="/sign-in?next=/air/board"
				data-sveltekit-reload>sign in again</a
			> at once.{:else}{cutOff
				? 'This screen is cut off from the server. Countdowns go on from what it knew last.'
				: 'live, on the server’s clock'}{/if}
	</p>
	<button
		type="button"
		class={['button', !sound.ready && 'primary']}
		aria-pressed={sound.ready}
		onclick={() => void sound.switchOn()}
		>{sound.ready ? 'Sound is on' : 'Switch the sound on'}</button
	>
	<a class="linkish ml-auto inline-flex min-h-11 items-center" href="/air/board/log">Entries kept</a
	>
</div>
{#if board.aheadMs !== 0 && board.teams.length}<div class="mt-3 max-w-[60rem]">
		<Notice kind="caution"
			><p>
				The clock of the server was set {jumpWords(board.aheadMs)} while a team is in. The board counts
				on without it: what it counts down is right, and its times are by the clock before. They follow
				once nobody is in.
			</p></Notice
		>
	</div>{/if}
<div role="alert" aria-label="Alarms" class="mt-3 grid gap-2">
	{#each alarms as alarm (`${alarm.wearer.id} ${alarm.key}`)}
		<div
			class="flex flex-wrap items-center gap-4 border-[3px] border-held bg-heldtint px-4 py-2"
			data-alarm={alarm.kind}
			data-due={alarm.at}
			data-of={alarm.wearer.id}
		>
			<AlarmMark kind={alarm.kind} size={34} />
			<p class="text-[1.35rem] leading-tight font-bold">
				{alarm.wearer.wearer}: {WORDS[alarm.kind]}
			</p>
			<p>since {siteClock(alarm.at)}</p>
			{#if data.mayControl}<button
					type="button"
					class="button ml-auto"
					onclick={async () => {
						for (const key of [...alarm.covers, alarm.key])
							refusal = await send('seen', { wearerId: alarm.wearer.id, key });
					}}>Seen</button
				>{/if}
		</div>
	{/each}
</div>
<FormRefusal {refusal} />
{#if board.teams.length === 0}<p class="mt-4 text-[1.1rem]">
		Nobody is in. Send a team in below; the board then counts each one down to turning back, being
		out and the warning.
	</p>{/if}
{#each board.teams as team (team.id)}
	{@const first = governs(team)}
	<section aria-labelledby="team-{team.id}" class="mt-6">
		<div class="flex flex-wrap items-center gap-x-5 gap-y-1 border-b-2 border-ink pb-1">
			<h2 id="team-{team.id}" class="text-[1.25rem]! text-ink!">{team.number}. {team.task}</h2>
			{#if team.place}<span>{team.place}</span>{/if}
			{#if team.turnedAt}<b>turned {siteClock(team.turnedAt)}</b
				>{:else if first.turnAt !== null}<span
					>{#if first.turnAt > now}turns in <b class="font-mono text-[1.25rem]"
							>{left(first.turnAt)}</b
						>{:else}<b class="text-held">turn back now</b>{/if}, {first.wearer?.wearer} first</span
				>{/if}
			<span class="text-soft">out {team.marginMin} min before the warning</span>
			{#if data.mayControl && !team.turnedAt}<button
					type="button"
					class="button ml-auto"
					onclick={async () => (refusal = await send('turn', { teamId: team.id }))}
					>The team has turned</button
				>{/if}
		</div>
		<ul>
			{#each team.wearers as wearer (wearer.id)}<WearerRow
					{wearer}
					turnedAt={team.turnedAt}
					{now}
					mayControl={data.mayControl}
					ontell={async (wearerId, pressure, corrects) =>
						(
							await send('tell', {
								id: ids(),
								wearerId,
								pressure,
								...(corrects ? { corrects: 'yes' } : {})
							})
						)?.message ?? null}
					onout={async (wearerId, pressure) =>
						(await send('out', { wearerId, pressure }))?.message ?? null}
				/>{/each}
		</ul>
	</section>
{/each}
{#if data.mayControl}
	<details bind:open={opened} class="mt-8">
		<summary class="linkish min-h-11 cursor-pointer content-center text-[1.1rem] font-semibold"
			>Send a team in</summary
		>
		<NewTeam
			from={data.team}
			places={data.places}
			known={data.known}
			telemetry={data.faults !== null}
			onenter={async (fields) => {
				const refusal = await send('enter', fields);
				if (!refusal) opened = false;
				return refusal;
			}}
		/>
	</details>
	{#if data.faults && channels.length}
		<details class="no-print mt-4">
			<summary class="linkish min-h-11 cursor-pointer content-center text-[0.9rem]"
				>Simulated wearers</summary
			>
			<form
				class="flex flex-wrap items-end gap-3"
				onsubmit={async (event) => {
					event.preventDefault();
					const fields = Object.fromEntries(new FormData(event.currentTarget));
					refusal = await send('simulate', fields as Record<string, string>);
				}}
			>
				<label
					><span class="label">Channel</span><select name="channel"
						>{#each channels as one (one)}<option>{one}</option>{/each}</select
					></label
				>
				<label
					><span class="label">Breathes, L/min</span><input
						name="lPerMin"
						value="50"
						class="w-24 font-mono"
					/></label
				>
				<label
					><span class="label">Telemetry</span><select name="fault"
						>{#each data.faults as one (one)}<option>{one}</option>{/each}</select
					></label
				>
				<label
					><span class="label">Times as fast</span><input
						name="speed"
						value="1"
						class="w-24 font-mono"
					/></label
				>
				<button class="button">Set</button>
			</form>
		</details>
	{/if}
{/if}
<div class="mt-6 max-w-[50rem]">
	<Notice kind="caution"
		><p>
			The board counts; it does not take the place of the one who keeps in touch with the team. Ask
			for the gauge often, and turn back by it.
		</p></Notice
	>
</div>
