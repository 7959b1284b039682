<script lang="ts">
	/** Stands on every screen of the trainer: nothing here is about a real item. */
	interface Props {
		/** What is walked, such as an exam beside somebody. */
		says?: string;
	}
	let { says = 'Nothing here is about a real item, and nothing of it is kept with one.' }: Props =
		$props();
</script>

<p
	class="flex flex-wrap items-baseline gap-x-3 border-y-[3px] border-double border-ink bg-tint px-3 py-1"
>
	<b class="text-[1.25rem] tracking-[0.35em]">DRILL</b>
	<span>{says}</span>
</p>
