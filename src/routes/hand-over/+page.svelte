<script lang="ts">
	import WhoForm from '$lib/ui/form/WhoForm.svelte';
	import Notice from '$lib/ui/form/Notice.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Hand over · Grevan</title></svelte:head>
<h1>Hand over</h1>
{#if data.takesPins}
	<p class="text-soft mt-1 max-w-prose">
		{#if data.actor}{data.actor.name} is here now. What they have begun stays theirs.{/if}
		Scan your personal card, or type your initials, then your PIN.
	</p>
	<div class="mt-5">
		<WhoForm
			action="/hand-over?next={encodeURIComponent(data.next)}"
			who={data.who}
			refused={form}
		/>
	</div>
	<p class="mt-6">
		<a class="linkish inline-flex min-h-11 items-center" href={data.next}
			>Back, without handing over</a
		>
	</p>
{:else}
	<div class="mt-4 max-w-prose">
		<Notice kind="caution">
			<p>This device takes no PIN yet.</p>
			<p>
				{#if data.actor}Say under <a class="linkish" href="/settings/device"
						>Settings, this device</a
					>
					that it is a bench that several share.{:else}<a class="linkish" href="/sign-in">Sign in</a
					>
					with your password, and tick that it is a bench that several share.{/if}
			</p>
		</Notice>
	</div>
{/if}
