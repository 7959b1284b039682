/** Who could be given what, at which cost, and how many may go of each stock. */
export interface Assignment {
	/** By wearer and set: what it costs; null: it may not be given to them. */
	costs: readonly (readonly (number | null)[])[];
	/** Stock that each set belongs to; left out: none keeps a floor. */
	stocks?: readonly (string | null)[];
	/** How many of a stock may go before its place falls below its floor. */
	spare?: ReadonlyMap<string, number>;
	/** What each one below a floor costs. */
	belowFloor?: number;
}

interface Edge {
	to: number;
	left: number;
	cost: number;
	/** The way back, by its place in the list of where it leads. */
	back: number;
}

/** A network in which as much as can be goes from the first node to the second, at least cost. */
class Network {
	private readonly edges: Edge[][];

	constructor(nodes: number) {
		this.edges = Array.from({ length: nodes }, () => []);
	}

	join(from: number, to: number, capacity: number, cost: number): void {
		const there = this.edges[from] ?? [];
		const back = this.edges[to] ?? [];
		there.push({ to, left: capacity, cost, back: back.length });
		back.push({ to: from, left: 0, cost: -cost, back: there.length - 1 });
	}

	/** Sends one more along the cheapest way that is left. @returns false where there is none */
	private more(source: number, sink: number): boolean {
		const far = this.edges.map(() => Infinity);
		const via: ([node: number, edge: Edge] | undefined)[] = this.edges.map(() => undefined);
		const waits = [source];
		const waiting = this.edges.map((_, node) => node === source);
		far[source] = 0;
		// Ways back cost less than nothing: the nearest is not always the next (Bellman and Ford, by a queue).
		for (let at = 0; at < waits.length; at++) {
			const node = waits[at] ?? 0;
			waiting[node] = false;
			for (const edge of this.edges[node] ?? []) {
				const here = (far[node] ?? Infinity) + edge.cost;
				if (edge.left === 0 || here >= (far[edge.to] ?? Infinity)) continue;
				far[edge.to] = here;
				via[edge.to] = [node, edge];
				if (waiting[edge.to]) continue;
				waiting[edge.to] = true;
				waits.push(edge.to);
			}
		}
		if (far[sink] === Infinity) return false;
		for (let node = sink; node !== source;) {
			const [before, edge] = via[node] ?? [source, undefined];
			if (edge) {
				edge.left--;
				const back = this.edges[node]?.[edge.back];
				if (back) back.left++;
			}
			node = before;
		}
		return true;
	}

	/** Sends as much as can be sent. */
	fill(source: number, sink: number): void {
		while (this.more(source, sink));
	}

	/** Where something went from a node; -1: nowhere. */
	wentTo(node: number, among: (to: number) => boolean): number {
		return (
			(this.edges[node] ?? []).find(({ to, left, cost }) => among(to) && left === 0 && cost >= 0)
				?.to ?? -1
		);
	}
}

/**
 * The cheapest of the ways that serve the most: maximum flow at least cost, by successive shortest paths (Busacker and
 * Gowen). Below a floor it goes where that serves somebody more, and nowhere else.
 * @returns set by wearer; -1: none
 */
export function cheapestMost({
	costs,
	stocks = [],
	spare = new Map<string, number>(),
	belowFloor = 0
}: Assignment): number[] {
	const wearers = costs.length;
	const sets = costs[0]?.length ?? 0;
	const kept = [...new Set(stocks.flatMap((stock) => stock ?? []))].filter((stock) =>
		spare.has(stock)
	);
	const [source, sink] = [0, 1];
	const wearerAt = (w: number) => 2 + w;
	const setAt = (s: number) => 2 + wearers + s;
	const stockAt = (name: string) => 2 + wearers + sets + kept.indexOf(name);
	const network = new Network(2 + wearers + sets + kept.length);
	for (const name of kept) {
		network.join(stockAt(name), sink, Math.max(0, spare.get(name) ?? 0), 0);
		network.join(stockAt(name), sink, sets, belowFloor);
	}
	for (let s = 0; s < sets; s++) {
		const stock = stocks[s] ?? null;
		const to = stock !== null && spare.has(stock) ? stockAt(stock) : sink;
		network.join(setAt(s), to, 1, 0);
	}
	costs.forEach((row, w) => {
		network.join(source, wearerAt(w), 1, 0);
		row.forEach((cost, s) => {
			if (cost !== null) network.join(wearerAt(w), setAt(s), 1, cost);
		});
	});
	network.fill(source, sink);
	return costs.map((_, w) => {
		const to = network.wentTo(wearerAt(w), (node) => node >= setAt(0) && node < setAt(sets));
		return to < 0 ? -1 : to - setAt(0);
	});
}
