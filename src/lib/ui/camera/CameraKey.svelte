<script lang="ts">
	/** Opens the camera beside a field that takes scans, where it stays open for one scan after the other. */
	import Camera from '@lucide/svelte/icons/camera';

	interface Props {
		open: boolean;
		onclick: () => void;
	}
	let { open, onclick }: Props = $props();
</script>

<button
	type="button"
	class={['button min-w-12', open && 'primary']}
	aria-pressed={open}
	aria-label="Scan with the camera"
	title="Scan with the camera"
	{onclick}><Camera size={22} aria-hidden="true" /></button
>
