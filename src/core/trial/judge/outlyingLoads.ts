/** Loads that lie far from the others of their arm: marked, never left out by themselves. */
import { groups } from 'd3-array';
import { METRICS } from '../../metrics/catalogue';
import { outliers } from '../../stats/summary';
import { countedLoads } from './counted';
import type { TrialDesign, TrialLoad } from '../types';

/**
 * Per metric, the ids of the loads beyond 3.5 scaled MADs from the median of their arm and conditions (house). Only
 * loads that count are looked at.
 */
export function outlyingLoads(
	design: Pick<TrialDesign, 'countsDisturbed'>,
	loads: readonly TrialLoad[]
): Record<string, number[]> {
	const counted = countedLoads(design, loads);
	const arms = groups(counted, ({ conditionId, armId }) => `${conditionId}/${armId}`);
	const marked: Record<string, number[]> = {};
	for (const { id: metric } of METRICS) {
		const ids = arms.flatMap(([, group]) => {
			const measured = group.filter((load) => load.figures[metric] !== null);
			const flags = outliers(measured.map((load) => load.figures[metric]!));
			return measured.filter((_, i) => flags[i]).map((load) => load.id);
		});
		if (ids.length) marked[metric] = ids;
	}
	return marked;
}
