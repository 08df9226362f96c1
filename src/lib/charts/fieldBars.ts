/** Bars of a histogram of visits, on an even scale from zero to where nearly all of them lie. */

export interface Bar {
	/** 0 to 1 of the width; height of the largest. */
	x: number;
	width: number;
	height: number;
	band: 'good' | 'needs' | 'poor';
}

/** Visits beyond this share lie too far out to be drawn. */
const DRAWN = 0.97;
const BARS = 40;

/**
 * Bins of any widths dealt out to bars of one width: each visit counts where it lies, a bin's visits evenly over it.
 * @param bins beginnings and shares, in order
 */
export function barsOf(
	bins: readonly (readonly [from: number, share: number])[],
	p75: number,
	thresholds: { good: number; poor: number }
): { bars: Bar[]; p75: number; good: number } {
	const end = Math.max(endOf(bins), p75 * 1.2, thresholds.good * 1.1);
	const shares = Array.from({ length: BARS }, () => 0);
	bins.forEach(([from, share], i) => {
		const to = bins[i + 1]?.[0] ?? from * 1.1;
		for (let bar = 0; bar < BARS; bar++) {
			const [left, right] = [(bar / BARS) * end, ((bar + 1) / BARS) * end];
			const common = Math.max(0, Math.min(to, right) - Math.max(from, left));
			if (to > from) shares[bar]! += (share * common) / (to - from);
		}
	});
	const most = Math.max(...shares, 1e-9);
	const bars = shares.map((share, bar): Bar => {
		const middle = ((bar + 0.5) / BARS) * end;
		const band = middle <= thresholds.good ? 'good' : middle > thresholds.poor ? 'poor' : 'needs';
		return { x: bar / BARS, width: 1 / BARS, height: share / most, band };
	});
	return { bars, p75: Math.min(1, p75 / end), good: Math.min(1, thresholds.good / end) };
}

function endOf(bins: readonly (readonly [number, number])[]): number {
	let below = 0;
	for (const [i, [from, share]] of bins.entries()) {
		below += share;
		if (below >= DRAWN) return bins[i + 1]?.[0] ?? from * 1.1;
	}
	return bins.at(-1)?.[0] ?? 1;
}
