<script lang="ts" generics="T">
	/** Hands over what is seen, as CSV. */
	import { csvOf, type TableColumn } from './table';

	interface Props {
		/** Of the file, without its ending. */
		name: string;
		rows: readonly T[];
		columns: readonly Pick<TableColumn<T>, 'head' | 'value'>[];
	}
	let { name, rows, columns }: Props = $props();

	async function save() {
		const text = await csvOf(rows, columns);
		const link = document.createElement('a');
		link.href = URL.createObjectURL(new Blob([`\uFEFF${text}`], { type: 'text/csv' }));
		link.download = `${name}.csv`;
		link.click();
		setTimeout(() => URL.revokeObjectURL(link.href), 1000);
	}
</script>

<p class="no-print mt-2">
	<button type="button" class="linkish min-h-11" onclick={() => void save()}
		>What is seen here, as CSV</button
	>
</p>
