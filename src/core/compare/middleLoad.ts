/** The load that stands for an arm where only one can be shown. */
import { median } from '../stats/summary';
import type { TrialLoad } from '../trial/types';

/** The load whose LCP is nearest to the arm's median; the first where none has one; null without loads. */
export function middleLoad<Load extends Pick<TrialLoad, 'id' | 'figures'>>(loads: readonly Load[]): Load | null {
	const measured = loads.filter((load) => load.figures.lcp !== null);
	if (!measured.length) return loads[0] ?? null;
	const middle = median(measured.map((load) => load.figures.lcp!));
	const distance = (load: Load) => Math.abs(load.figures.lcp! - middle);
	return [...measured].sort((a, b) => distance(a) - distance(b) || a.id - b.id)[0]!;
}
