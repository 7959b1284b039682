<script lang="ts">
	/** Pictures at a step: taken with the camera or chosen as a file; they wait on the device like answers do. */
	import Camera from '@lucide/svelte/icons/camera';
	import { outbox } from '$lib/ui/outbox/outbox.svelte';
	import { siteMoment } from '$lib/ui/time/moments';

	interface Props {
		run: string;
		tag: string;
		step: string;
		/** Of the step, to be read where it is refused. */
		title: string;
		photos: readonly { id: string; by: string; takenAt: Date }[];
		active: boolean;
	}
	let { run, tag, step, title, photos, active }: Props = $props();
	const MOST_BYTES = 15_000_000;
	let refusal = $state<string | null>(null);
	const unsent = $derived(
		outbox.waiting.filter((p) => p.about === run && p.file && p.body.step === step).length
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
			id: crypto.randomUUID(),
			about: run,
			name: tag,
			says: `${title}: picture`,
			url: `/api/runs/${run}/photos`,
			body: { id: crypto.randomUUID(), step },
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
					aria-label="Picture of this step"
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
