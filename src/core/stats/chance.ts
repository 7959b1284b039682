const HEX = '0123456789abcdef';

/** A seeded source of numbers, so that what is drawn is the same every time (mulberry32, public domain). */
export class Chance {
	constructor(private state: number) {}

	/** Evenly from 0 to just below 1. */
	next(): number {
		this.state = (this.state + 0x6d2b79f5) | 0;
		let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	}

	/** A whole number from low to high, both possible. */
	int(low: number, high: number): number {
		return low + Math.floor(this.next() * (high - low + 1));
	}

	/** Anywhere from one number to another. */
	between(from: number, to: number): number {
		return from + this.next() * (to - from);
	}

	pick<T>(list: readonly T[]): T {
		const found = list[this.int(0, list.length - 1)];
		if (found === undefined) throw new RangeError('Nothing to pick from.');
		return found;
	}

	/** A version 4 UUID from this source. */
	uuid(): string {
		const hex = (n: number) => {
			let digits = '';
			for (let i = 0; i < n; i++) digits += HEX[this.int(0, 15)];
			return digits;
		};
		return `${hex(8)}-${hex(4)}-4${hex(3)}-${this.pick(['8', '9', 'a', 'b'])}${hex(3)}-${hex(12)}`;
	}
}
