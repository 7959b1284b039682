<script lang="ts">
	/** Who an account is of. */
	import PlainField from '$lib/ui/form/PlainField.svelte';
	import { refusedAt, type FormRefusal } from '$lib/ui/form/refused';

	interface Props {
		refusal: FormRefusal | null | undefined;
		of?: { name: string; initials: string; email: string };
	}
	let { refusal, of }: Props = $props();
</script>

<PlainField
	label="Name"
	name="name"
	required
	value={of?.name}
	refusal={refusedAt(refusal, 'name')}
/>
<PlainField
	label="Initials"
	name="initials"
	maxlength={4}
	required
	mono
	width="w-24"
	value={of?.initials}
	refusal={refusedAt(refusal, 'initials')}
	hint="They stand on labels, and are typed at the bench."
/>
<PlainField
	label="Address"
	name="email"
	type="email"
	autocomplete="off"
	required
	value={of?.email}
	refusal={refusedAt(refusal, 'email')}
/>
