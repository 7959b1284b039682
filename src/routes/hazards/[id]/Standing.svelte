<script lang="ts">
	/** Where a plan stands: draft or edition, what speaks against it, and the supervisor's approval. */
	import { enhance } from '$lib/ui/form/enhance';
	import { Dialog } from 'bits-ui';
	import type { PlanState } from '$core/hazards/plan-status';
	import Field from '$lib/ui/form/Field.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';
	import StateMark from '$lib/ui/mark/StateMark.svelte';
	import { PLAN_MARKS } from '$lib/ui/sections';
	import { readable } from '$core/plan/calendar';
	import { freshId } from '$lib/fresh-id';
	import { siteMoment } from '$lib/ui/time/moments';
	import DayField from '$lib/ui/form/DayField.svelte';
	import { refusedAt } from '$lib/ui/form/refused';

	interface Props {
		planId: string;
		version: number;
		standing: {
			state: PlanState;
			draftAhead: boolean;
			editions: number;
			newest: {
				edition: number;
				by: string;
				reviewOn: string;
				expiresOn: string;
				version: number;
			} | null;
			flags: { id: string; text: string; by: string; at: Date }[];
		} | null;
		mayApprove: boolean;
		/** Whoever looks wrote it. */
		forAnother: boolean;
		mayPlan: boolean;
		reviewOn: string;
		expiresOn: string;
		/** Everything typed is on the server. */
		kept: boolean;
		filter: boolean;
		refusal: { message: string; path?: string | undefined } | null;
	}
	let {
		planId,
		version,
		standing,
		mayApprove,
		forAnother,
		mayPlan,
		reviewOn,
		expiresOn,
		kept,
		filter,
		refusal
	}: Props = $props();
	let open = $state(false);
	let approveId = $state(freshId());
	const changed = $derived(!standing?.newest || version > standing.newest.version);
	const stands = $derived(standing?.state ?? 'draft');
</script>

<div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 border-y border-rule py-1">
	<span class="inline-flex min-h-11 items-center gap-2" data-testid="standing"
		><StateMark state={PLAN_MARKS[stands]} /><b>{stands}</b>
		{#if standing?.newest}<span class="text-soft"
				>edition {standing.newest.edition} by {standing.newest.by}, review by {readable(
					standing.newest.reviewOn
				)}, lapses {readable(standing.newest.expiresOn)}{changed
					? '; what you see is a newer draft'
					: ''}</span
			>{:else}<span class="text-soft">no supervisor has approved it yet</span>{/if}</span
	>
	<span class="ml-auto flex flex-wrap items-center gap-x-4">
		{#if version > 0}
			{#if filter}<a class="linkish inline-flex min-h-11 items-center" href="/hazards/{planId}/life"
					>Filter life</a
				>{/if}
			<a class="linkish inline-flex min-h-11 items-center" href="/hazards/{planId}/card"
				>Card for the wall</a
			>
			<a class="linkish inline-flex min-h-11 items-center" href="/hazards/{planId}/editions"
				>Editions</a
			>
			{#if mayPlan}<a
					class="linkish inline-flex min-h-11 items-center"
					href="/hazards/new?copy={planId}"
					data-sveltekit-reload>Copy</a
				>{/if}
		{/if}
		{#if mayApprove && forAnother && changed}
			<p class="text-soft">You wrote it: another supervisor approves.</p>
		{:else if mayApprove && version > 0}
			<Dialog.Root bind:open>
				<Dialog.Trigger class="button primary" disabled={!kept || !changed}
					>{changed ? 'Approve' : 'Approved'}</Dialog.Trigger
				>
				<Dialog.Portal>
					<Dialog.Overlay class="fixed inset-0 z-40 bg-black/30" />
					<Dialog.Content
						class="fixed top-1/2 left-1/2 z-50 w-[min(30rem,94vw)] -translate-x-1/2 -translate-y-1/2 border-2 border-ink bg-sheet p-6"
					>
						<Dialog.Title class="text-[1.3rem] font-bold">Approve this plan</Dialog.Title>
						<Dialog.Description class="text-soft mt-1"
							>It becomes edition {(standing?.newest?.edition ?? 0) + 1}, with your name, until it
							lapses. You vouch that the facts were looked at on the spot.</Dialog.Description
						>
						<form
							method="post"
							action="?/approve"
							class="mt-4 grid gap-4"
							use:enhance={() =>
								async ({ result, update }) => {
									await update({ reset: false });
									if (result.type === 'success') {
										open = false;
										approveId = freshId();
									}
								}}
						>
							<input type="hidden" name="id" value={approveId} /><input
								type="hidden"
								name="version"
								value={version}
							/>
							{#if refusal && !['reviewOn', 'expiresOn'].includes(refusal.path ?? '')}<Notice
									kind="refusal"><p>{refusal.message}</p></Notice
								>{/if}
							<div class="grid grid-cols-2 gap-4">
								<DayField
									name="reviewOn"
									label="Look at it again by"
									value={reviewOn}
									refusal={refusedAt(refusal, 'reviewOn')}
								/>
								<DayField
									name="expiresOn"
									label="It lapses after"
									value={expiresOn}
									refusal={refusedAt(refusal, 'expiresOn')}
								/>
							</div>
							<Field id="note" label="Conditions, if any">
								{#snippet children(field)}<textarea {...field} name="note" rows="2" class="w-full"
									></textarea>{/snippet}
							</Field>
							<div class="flex justify-end gap-3">
								<Dialog.Close class="button">Not yet</Dialog.Close><button class="button primary"
									>Approve</button
								>
							</div>
						</form>
					</Dialog.Content>
				</Dialog.Portal>
			</Dialog.Root>
		{/if}
	</span>
</div>
{#each standing?.flags ?? [] as flag (flag.id)}
	<div class="mt-3">
		<Notice kind="refusal">
			<p><b>This plan is in question.</b> {flag.text}</p>
			<p class="text-soft text-[0.9rem]">
				Reported by {flag.by}, {siteMoment(flag.at)}. Measure again before the task goes on.
			</p>
			{#if mayApprove}<form
					method="post"
					action="?/clear"
					use:enhance
					class="mt-2 flex flex-wrap items-end gap-3"
				>
					<input type="hidden" name="id" value={flag.id} />
					<div class="flex-1">
						<label class="label" for="why-{flag.id}">What was found, what was changed</label><input
							id="why-{flag.id}"
							name="why"
							required
							maxlength="500"
							class="w-full"
						/>
					</div>
					<button class="button">Looked into</button>
				</form>{/if}
		</Notice>
	</div>
{/each}
