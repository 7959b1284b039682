/** Where ids come from; the server takes part in it where it makes one page for many. */
let source: () => string = () => crypto.randomUUID();

/** An id that a form sends, so that what is sent twice is done once. Never the same for two people or two visits. */
export const freshId = (): string => source();

/** Lets every new id be known to whoever makes the page that it stands on. */
export function freshIdsFrom(next: () => string): void {
	source = next;
}
