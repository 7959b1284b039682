<script lang="ts">
	/** The whole site out as one file, and how one comes in. */
	import Notice from '$lib/ui/form/Notice.svelte';
	import TakeFile from '$lib/ui/records/TakeFile.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Archive · Grevan</title></svelte:head>
<p class="crumb"><a class="linkish" href="/records">Records</a></p>
<h1>Archive of the whole site</h1>
<p class="mt-1 max-w-[46rem]">
	Everything that is on record, of one moment, in one file that other programs can read: a ZIP of
	JSON lines with pictures, a manifest and the SHA-256 of each. Passwords, PINs and keys stay here.
	For the nightly copy that is put back after a loss, see the backup.
</p>
{#if !data.mayTake}<div class="mt-4">
		<Notice><p>It holds everything of everybody: an admin takes it.</p></Notice>
	</div>
{:else}
	<TakeFile action="/records/archive.zip" words="Write and take it">
		{#snippet taken()}Its format is described in <span class="font-mono">docs/archive.md</span>.
			Keep it where only those may read it who may read all of this.{/snippet}
	</TakeFile>
{/if}
<h2 class="mt-6">Reading one in</h2>
<p class="max-w-[46rem]">
	Into a site in which nobody has an account yet, at the machine that it runs on, while it is
	stopped:
</p>
<p class="mt-2 font-mono">npm run archive:read -- FILE</p>
<p class="mt-2 max-w-[46rem]">
	The log is proven on the way. A file in which a byte was changed is refused with the name of what
	was changed, and one that a newer Grevan wrote with the version that it needs. Then give people
	their passwords: <span class="font-mono">npm run user:add</span>.
</p>
