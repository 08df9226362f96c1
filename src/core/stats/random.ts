/** Seeded random numbers: the same seed gives the same plan, the same resamples and the same simulation everywhere. */

export type Random = () => number;

/**
 * Uniform numbers in [0, 1) from a 32-bit seed: sfc32 (Doty-Humphrey's small fast counter, from memory), its state
 * spread from the seed by splitmix32 and warmed up.
 */
export function seededRandom(seed: number): Random {
	let spread = seed | 0;
	const next32 = () => {
		spread = (spread + 0x9e3779b9) | 0;
		let t = spread ^ (spread >>> 16);
		t = Math.imul(t, 0x21f0aaad);
		t ^= t >>> 15;
		t = Math.imul(t, 0x735a2d97);
		return (t ^ (t >>> 15)) | 0;
	};
	let a = next32();
	let b = next32();
	let c = next32();
	let counter = 1;
	const step = () => {
		const t = (((a + b) | 0) + counter) | 0;
		counter = (counter + 1) | 0;
		a = b ^ (b >>> 9);
		b = (c + (c << 3)) | 0;
		c = (c << 21) | (c >>> 11);
		c = (c + t) | 0;
		return t >>> 0;
	};
	for (let i = 0; i < 12; i++) step();
	return () => step() / 4294967296;
}

/** A shuffled copy (Fisher-Yates, every order equally likely). */
export function shuffled<T>(items: readonly T[], random: Random): T[] {
	const result = [...items];
	shuffle(result, random);
	return result;
}

/** In place. */
export function shuffle(items: unknown[] | Uint16Array, random: Random): void {
	for (let i = items.length - 1; i > 0; i--) {
		const j = Math.floor(random() * (i + 1));
		const item = items[i];
		items[i] = items[j]!;
		items[j] = item as number;
	}
}

/** A standard normal number (Box-Muller). */
export function normalFrom(random: Random): number {
	return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
