<script lang="ts">
	import { untrack } from 'svelte';
	import SheetForm from './SheetForm.svelte';

	let { data, form } = $props();
	let day = $state('');
	let doneBy = $state(untrack(() => data.me));
</script>

<svelte:head><title>{data.tag} from paper · Grevan</title></svelte:head>
<p class="crumb text-soft"><a class="linkish" href="/items/{data.tag}">{data.tag}</a></p>
<h1>{data.procedure.name}, from paper</h1>
{#key `${data.tag} ${data.procedure.key} ${data.procedure.version}`}
	<SheetForm {data} {form} bind:day bind:doneBy />
{/key}
