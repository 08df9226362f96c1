/** Simulated server time: a middle value and a skewed, seeded jitter for each request in turn. */
import { randomFrom, seedOf, type Random } from './random';

export interface ServerTime {
	/** Median in ms. */
	middleMs: number;
	/** Spread on the log scale; 0.1 makes about two thirds of requests fall within 10 %. */
	spread: number;
}

export class ServerClock {
	#streams = new Map<string, Random>();

	constructor(private readonly seed: number) {}

	/** Time for the next request to that host, ms. */
	next(host: string, { middleMs, spread }: ServerTime): number {
		let random = this.#streams.get(host);
		if (!random) {
			random = randomFrom(seedOf(this.seed, host));
			this.#streams.set(host, random);
		}
		const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
		return middleMs * Math.exp(spread * normal);
	}
}
