/** Seeded numbers for content and jitter (mulberry32, from memory). */
export type Random = () => number;

export function randomFrom(seed: number): Random {
	let state = seed >>> 0;
	return () => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = state;
		t = Math.imul(t ^ (t >>> 15), t | 1);
		t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}

/** A seed from words (FNV-1a). */
export function seedOf(...words: (string | number)[]): number {
	let hash = 0x811c9dc5;
	for (const letter of words.join('\n')) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193) >>> 0;
	return hash;
}
