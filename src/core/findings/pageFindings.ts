/** What the loads of one page show together: in how many of them, and at what cost. */
import { group } from 'd3-array';
import { medianOrNull } from '../stats/summary';
import type { Cost, Finding } from './finding';

export interface PageFinding extends Omit<Finding, 'cost' | 'saving'> {
	/** Medians over the loads that show it. */
	cost: Cost;
	saving: Finding['saving'];
	/** In so many loads, of so many good ones. */
	seen: { k: number; n: number };
	/** A load that shows it. */
	load: number;
}

export interface LoadFindings {
	load: number;
	findings: readonly Finding[];
}

/** Of the good loads of one page under one set of conditions. */
export function findingsOfPage(loads: readonly LoadFindings[]): PageFinding[] {
	const all = loads.flatMap(({ load, findings }) => findings.map((finding) => ({ load, finding })));
	const byKey = group(all, ({ finding }) => `${finding.rule}/${finding.resource.key}`);
	return [...byKey.values()].map((own) => {
		const [first] = own as [{ load: number; finding: Finding }];
		const costs = own.map(({ finding }) => finding.cost);
		const saved = medianOrNull(own.flatMap(({ finding }) => finding.saving?.bytes ?? []));
		return {
			...first.finding,
			load: first.load,
			cost: {
				bytes: medianOf(costs, ({ bytes }) => bytes),
				threadMs: medianOf(costs, ({ threadMs }) => threadMs),
				metric: costs.find(({ metric }) => metric !== null)?.metric ?? null,
				delay: medianOf(costs, ({ delay }) => delay)
			},
			saving: saved === null ? null : { bytes: saved },
			seen: { k: own.length, n: loads.length }
		};
	});
}

const medianOf = (costs: readonly Cost[], of: (cost: Cost) => number | null) =>
	medianOrNull(costs.flatMap((cost) => of(cost) ?? []));

/** In most of the good loads; what is seen now and then is told, and counts as no cause. */
export const isUsual = ({ seen }: Pick<PageFinding, 'seen'>): boolean => 2 * seen.k > seen.n;
