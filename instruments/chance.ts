/** A draw from the normal distribution out of even ones (Box and Muller, published). */
export const normalFrom = (chance: { next: () => number }): number =>
	Math.sqrt(-2 * Math.log(1 - chance.next())) * Math.cos(2 * Math.PI * chance.next());

/** Park and Miller's minimal standard generator, and normal numbers from it. */
export class Chance {
	private state: number;
	constructor(seed: number) {
		this.state = (Math.abs(Math.floor(seed)) % 2147483646) + 1;
		for (let i = 0; i < 8; i++) this.next();
	}
	next(): number {
		this.state = (this.state * 48271) % 2147483647;
		return this.state / 2147483647;
	}
	normal(): number {
		const [u, v] = [Math.max(1e-12, this.next()), this.next()];
		return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * v);
	}
	between(low: number, high: number): number {
		return low + this.next() * (high - low);
	}
}
