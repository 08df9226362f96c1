/**
 * Holm's step-down correction for several tests at once.
 * Source: Holm, "A simple sequentially rejective multiple test procedure", Scandinavian Journal of Statistics, 1979.
 * @param ps p values @returns adjusted p values in the same order; rejecting those <= alpha keeps the chance of any
 * false rejection at or below alpha
 */
export function holm(ps: readonly number[]): number[] {
	const order = ps.map((p, index) => ({ p, index })).sort((a, b) => a.p - b.p);
	const adjusted = new Array<number>(ps.length);
	let reached = 0;
	order.forEach(({ p, index }, rank) => {
		reached = Math.max(reached, Math.min(1, p * (ps.length - rank)));
		adjusted[index] = reached;
	});
	return adjusted;
}
