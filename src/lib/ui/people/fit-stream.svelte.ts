import { onMount, untrack } from 'svelte';
import { invalidateAll } from '$app/navigation';
import type { CounterReading } from '$core/fit/sequence';

/** Listens to the readings of a fit test that is under way, as they come. Called while a page is set up. */
export class FitStream {
	readings = $state.raw<CounterReading[]>([]);
	link = $state<'live' | 'reconnecting'>('live');

	constructor(id: string, readings: CounterReading[], open: boolean) {
		this.readings = readings;
		onMount(() => {
			if (!open) return;
			const from = untrack(() => this.readings.length);
			const events = new EventSource(`/api/fit/${id}/events?from=${from}`);
			events.onmessage = (event) => {
				this.link = 'live';
				const fresh = JSON.parse(String(event.data)) as CounterReading[];
				this.readings = [...this.readings, ...fresh];
			};
			events.addEventListener('ended', () => {
				events.close();
				void invalidateAll();
			});
			events.onerror = () => (this.link = 'reconnecting');
			return () => events.close();
		});
	}
}
