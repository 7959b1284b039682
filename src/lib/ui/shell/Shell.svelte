<script lang="ts">
	/** Header and spine around every page. */
	import type { Snippet } from 'svelte';
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import CalendarDays from '@lucide/svelte/icons/calendar-days';
	import ClipboardList from '@lucide/svelte/icons/clipboard-list';
	import Camera from '@lucide/svelte/icons/camera';
	import Cylinder from '@lucide/svelte/icons/cylinder';
	import Gauge from '@lucide/svelte/icons/gauge';
	import GraduationCap from '@lucide/svelte/icons/graduation-cap';
	import FlaskConical from '@lucide/svelte/icons/flask-conical';
	import Archive from '@lucide/svelte/icons/archive';
	import ArrowLeftRight from '@lucide/svelte/icons/arrow-left-right';
	import Droplets from '@lucide/svelte/icons/droplets';
	import ShieldHalf from '@lucide/svelte/icons/shield-half';
	import Users from '@lucide/svelte/icons/users';
	import Wind from '@lucide/svelte/icons/wind';
	import Wrench from '@lucide/svelte/icons/wrench';
	import CircleQuestionMark from '@lucide/svelte/icons/circle-question-mark';
	import Moon from '@lucide/svelte/icons/moon';
	import Settings from '@lucide/svelte/icons/settings';
	import Sun from '@lucide/svelte/icons/sun';
	import type { ComponentProps } from 'svelte';
	import LinkState from '../outbox/LinkState.svelte';
	import Refusals from '../outbox/Refusals.svelte';
	import Unkept from '../outbox/Unkept.svelte';
	import TimerStrip from '../timer/TimerStrip.svelte';
	import { outbox } from '../outbox/outbox.svelte';
	import { siteUnits } from '../reading/site-units';
	import FailedTries from './FailedTries.svelte';
	import KeysDialog from './KeysDialog.svelte';
	import ProofDialog from './ProofDialog.svelte';
	import { forget } from '../outbox/store';

	interface Props {
		actor: { id: string; name: string; role: string };
		ruleSet: 'us' | 'uk';
		theme: 'day' | 'night';
		timers: ComponentProps<typeof TimerStrip>['timers'];
		/** This is a bench that several share. */
		shared: boolean;
		hasPin: boolean;
		/** Tries in the name of the person that failed since they were in last. */
		failuresBefore: number;
		children: Snippet;
	}
	let { actor, ruleSet, theme, timers, shared, hasPin, failuresBefore, children }: Props = $props();
	/** Whoever takes over comes to the same page, but not into the inspection of another. */
	const handOverNext = $derived(
		page.url.pathname.startsWith('/runs/') ? '' : `?next=${encodeURIComponent(page.url.pathname)}`
	);

	const SPINE = [
		{ href: '/', name: 'Today', icon: ClipboardList },
		{ href: '/hazards', name: 'Hazards', icon: FlaskConical },
		{ href: '/filters', name: 'Filters', icon: Cylinder },
		{ href: '/items', name: 'Items', icon: ShieldHalf, also: '/runs' },
		{ href: '/counter', name: 'Counter', icon: ArrowLeftRight },
		{ href: '/wash', name: 'Wash', icon: Droplets },
		{ href: '/bench', name: 'Bench', icon: Gauge },
		{ href: '/air', name: 'Air', icon: Wind },
		{ href: '/plan', name: 'Plan', icon: CalendarDays },
		{ href: '/faults', name: 'Faults', icon: Wrench },
		{ href: '/people', name: 'People', icon: Users },
		{ href: '/drill', name: 'Drill', icon: GraduationCap },
		{ href: '/records', name: 'Records', icon: Archive },
		{ href: '/settings', name: 'Settings', icon: Settings }
	];
	const here = (link: (typeof SPINE)[number]) => {
		const path = page.url.pathname;
		if (link.href === '/') return path === '/';
		return path.startsWith(link.href) || (link.also !== undefined && path.startsWith(link.also));
	};
	let scan: HTMLInputElement | undefined = $state();
	/** This page signs out: it goes where that leads. */
	let leaving = false;

	onMount(() => {
		const root = document.documentElement.dataset;
		delete root.ready;
		const heard = () => {
			// From here on keys and the scanner are heard.
			root.ready = 'true';
		};
		// A device that keeps nothing can still be worked on while the link lasts.
		outbox.wake({ id: actor.id, name: actor.name }).then(heard, heard);
		bringGuide();
		// Somebody else took this device, in another window: this page is theirs to see, or nobody's.
		const told = (event: MessageEvent<{ person?: string }>) => {
			const { person } = event.data;
			if (!leaving && person !== undefined && person !== actor.id) location.reload();
		};
		navigator.serviceWorker?.addEventListener('message', told);
		return () => navigator.serviceWorker?.removeEventListener('message', told);
	});

	/** Has the guide on the device once in a sitting, so that it can be read without a connection. */
	function bringGuide() {
		if (!navigator.serviceWorker?.controller || sessionStorage.getItem('guide')) return;
		sessionStorage.setItem('guide', 'asked');
		void fetch('/help').catch(() => sessionStorage.removeItem('guide'));
	}
	const { pressureUnit, temperatureUnit } = $derived(siteUnits());
	const once = (unit: string, i: number, all: readonly string[]) => all.indexOf(unit) === i;
	let helping = $state(false);
	let looking = $state(false);
	function shortcut(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (target.closest('input, textarea, select, [role=dialog], [role=spinbutton]')) return;
		if (event.key === '/') scan?.focus();
		else if (event.key === '?') helping = true;
		else return;
		event.preventDefault();
	}
	/** The page of the guide about where one is; the first hour where none is. */
	const GUIDE: readonly (readonly [path: string, key: string])[] = [
		['/hazards', 'hazards'],
		['/filters', 'filters'],
		['/items/models', 'models'],
		['/items', 'inspections'],
		['/runs', 'inspections'],
		['/counter', 'counter'],
		['/wash', 'counter'],
		['/bench', 'bench'],
		['/air', 'air'],
		['/people', 'people'],
		['/plan', 'plan-records'],
		['/records', 'plan-records'],
		['/faults', 'faults'],
		['/drill', 'drill'],
		['/settings/rules', 'intervals'],
		['/settings', 'settings']
	];
	const guide = $derived(
		GUIDE.find(([path]) => page.url.pathname.startsWith(path))?.[1] ?? 'today'
	);
</script>

<svelte:window onkeydown={shortcut} />

<a href="#main" class="button sr-only focus:not-sr-only focus:absolute focus:z-50">To the page</a>
<div class="shell" data-person={actor.id}>
	<header class="no-print">
		<a href="/" class="wordmark">Grevan</a>
		<form role="search" action="/scan" method="get" data-sveltekit-reload>
			<label class="sr-only" for="scan">Scan a tag, or search</label>
			<kbd aria-hidden="true">/</kbd>
			<input
				id="scan"
				name="q"
				autocomplete="off"
				bind:this={scan}
				required
				placeholder="Scan a tag, or type what you look for"
			/>
			<button
				type="button"
				class="icon"
				aria-label="Scan with the camera"
				aria-pressed={looking}
				onclick={() => (looking = !looking)}><Camera size={20} aria-hidden="true" /></button
			>
		</form>
		<div class="facts">
			<span>Rules <b>{ruleSet.toUpperCase()}</b></span>
			<span class="units"
				>{['bar', pressureUnit].filter(once).join(' / ')} · {['°C', temperatureUnit]
					.filter(once)
					.join(' / ')} · ppm</span
			>
			<LinkState />
			<form method="post" action="/theme">
				<input type="hidden" name="next" value={page.url.pathname + page.url.search} />
				<button
					class="icon"
					name="theme"
					value={theme === 'night' ? 'day' : 'night'}
					aria-label={theme === 'night' ? 'Day theme' : 'Night theme'}
				>
					{#if theme === 'night'}<Sun size={18} aria-hidden="true" />{:else}<Moon
							size={18}
							aria-hidden="true"
						/>{/if}
				</button>
			</form>
			<button class="icon" aria-label="Keys and help" onclick={() => (helping = true)}
				><CircleQuestionMark size={18} aria-hidden="true" /></button
			>
			<a class="who" href="/settings"><b>{actor.name}</b>, {actor.role}</a>
			{#if shared}<a
					class="linkish inline-flex min-h-11 items-center"
					href="/hand-over{handOverNext}">Hand over</a
				>{/if}
			<form
				method="post"
				action="/sign-out"
				onsubmit={() => {
					leaving = true;
					void forget(actor.id).catch(() => undefined);
				}}
			>
				<button class="linkish min-h-11">Sign out</button>
			</form>
		</div>
	</header>
	{#if helping}<KeysDialog bind:open={helping} {guide} />{/if}
	<nav class="no-print" aria-label="Work">
		{#each SPINE as link (link.href)}
			<a href={link.href} class:on={here(link)} aria-current={here(link) ? 'page' : undefined}>
				<link.icon size={18} aria-hidden="true" />{link.name}
			</a>
		{/each}
	</nav>
	<ProofDialog name={actor.name} {hasPin} {shared} />
	<main id="main" tabindex="-1">
		{#if looking}{#await import('../camera/CameraScan.svelte') then { default: CameraScan }}<div
					class="mb-4"
				>
					<CameraScan
						onscan={(word) => location.assign(`/scan?q=${encodeURIComponent(word)}`)}
						onclose={() => (looking = false)}
					/>
				</div>{/await}{/if}
		{#if failuresBefore}<FailedTries tries={failuresBefore} />{/if}<Unkept /><Refusals /><TimerStrip
			{timers}
		/>{@render children()}
	</main>
</div>

<style>
	.shell {
		display: grid;
		grid-template: auto auto 1fr / minmax(0, 1fr);
		min-height: 100dvh;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.3rem 1rem;
		padding: 0.25rem 1rem;
		border-bottom: 2px solid var(--ink);
	}
	.wordmark {
		font-weight: 750;
		font-size: 1.4rem;
		letter-spacing: -0.01em;
		text-decoration: none;
	}
	header form[role='search'] {
		display: flex;
		position: relative;
		flex: 1 1 16rem;
		max-width: 26rem;
	}
	header form[role='search'] kbd {
		position: absolute;
		left: 10px;
		top: 12px;
	}
	header input {
		width: 100%;
		padding-left: 2.4rem;
	}
	.facts {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0 1.2rem;
		margin-left: auto;
		font-size: 0.93rem;
	}
	.icon {
		display: grid;
		place-items: center;
		width: 44px;
		height: 44px;
		border: 0;
		background: none;
		color: inherit;
		cursor: pointer;
	}
	nav {
		display: flex;
		overflow-x: auto;
		border-bottom: 1px solid var(--rule);
	}
	nav a {
		display: flex;
		align-items: center;
		gap: 0.3rem;
		min-height: 44px;
		/* All eleven fit beside one another on a bench tablet. */
		padding: 0 0.32rem;
		font-size: 0.95rem;
		text-decoration: none;
		white-space: nowrap;
	}
	nav a.on {
		font-weight: 700;
		background: var(--sheet);
		box-shadow: inset 0 -4px 0 var(--accent);
	}
	main {
		padding: 1.1rem 1rem 2rem;
		min-width: 0;
	}
	main:focus {
		outline: none;
	}
	@media (max-width: 63.99rem) {
		.units {
			display: none;
		}
	}
	@media (max-width: 48rem) {
		.who {
			display: none;
		}
	}
	@media (min-width: 64rem) {
		.shell {
			grid-template: auto 1fr / 136px minmax(0, 1fr);
		}
		header {
			grid-column: 1 / 3;
			flex-wrap: nowrap;
		}
		.wordmark {
			width: 118px;
		}
		nav {
			flex-direction: column;
			border-bottom: 0;
			border-right: 1px solid var(--rule);
			padding-top: 0.6rem;
		}
		nav a {
			gap: 0.55rem;
			padding: 0 0.9rem;
			font-size: inherit;
		}
		nav a.on {
			box-shadow: inset 5px 0 0 var(--accent);
		}
		main {
			padding: 1.2rem 1.6rem 2rem;
		}
	}
</style>
