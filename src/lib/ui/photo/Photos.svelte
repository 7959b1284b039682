<script lang="ts">
	/** Pictures of what was found, at a step or a fault: taken with the camera or chosen as a file; they wait on the device like answers do. */
	import Camera from '@lucide/svelte/icons/camera';
	import { freshId } from '$lib/fresh-id';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	interface Props {
		/** Takes them in. */
		url: string;
		/** What they belong to: the inspection or the fault. */
		about: string;
		tag: string;
		/** Of an inspection. */
		step?: string;
		/** Of the step or the fault, to be read where it is refused. */
		title: string;
		photos: readonly { id: string; by: string; takenAt: Date }[];
		active: boolean;
	}
	let { url, about, tag, step, title, photos, active }: Props = $props();
	const MOST_BYTES = 15_000_000;
	let refusal = $state<string | null>(null);
	const unsent = $derived(
		outbox.waiting.filter((p) => p.about === about && p.file && p.body.step === step).length
	);

	function take(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		refusal = null;
		if (!file) return;
		if (file.size > MOST_BYTES) {
			refusal = `The file has ${Math.round(file.size / 1e6)} MB, ${MOST_BYTES / 1e6} MB at most. Take it at a lower setting.`;
			return;
		}
		outbox.put({
			id: freshId(),
			about,
			name: tag,
			says: `${title}: picture`,
			url,
			body: step === undefined ? { id: freshId() } : { id: freshId(), step },
			file
		});
	}
</script>

{#if active || photos.length}
	<div class="mt-4 flex flex-wrap items-center gap-3">
		{#if active}
			<label class="button cursor-pointer">
				<Camera size={18} aria-hidden="true" /> Picture
				<input
					type="file"
					accept="image/*"
					capture="environment"
					class="sr-only"
					aria-label={step === undefined ? 'Picture of the fault' : 'Picture of this step'}
					onchange={take}
				/>
			</label>
		{/if}
		{#each photos as photo (photo.id)}<a href="/api/photos/{photo.id}" data-sveltekit-reload
				><img
					src="/api/photos/{photo.id}"
					alt="Taken by {photo.by}, {siteMoment(photo.takenAt)}"
					class="h-16 border border-rule"
				/></a
			>{/each}
		{#if unsent}<span class="text-soft">{unsent} being sent</span>{/if}
	</div>
	{#if refusal}<p class="mt-1 font-semibold text-held" role="alert">{refusal}</p>{/if}
{/if}
