/** Whether collecting changes what it measures: full against bare, interleaved, on a heavy page. */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions';
import type { MetricId } from '$core/metrics/catalogue';
import { pairedShift } from '$core/stats/signedRank';
import { Lab } from '../src/lab/lab';
import type { Collects } from '../src/lab/loadSession';
import { startDemoWeb } from '../test/support/world';
import { percent, printTable, type Row } from './table';

const ROUNDS = Number(process.env.BENCH_ROUNDS ?? 20);
const METRICS: MetricId[] = ['ttfb', 'fcp', 'lcp', 'dcl', 'onload', 'full', 'tbt'];
const URL = 'https://northsound-crossings.test/';
const web = await startDemoWeb();
const labs = Object.fromEntries(
	(['full', 'bare'] as const).map((collects) => [
		collects,
		new Lab({ hostMap: web.rules, trustedKeys: [web.keyHash], collects })
	])
) as Record<Collects, Lab>;
const desktop = BUILT_IN_CONDITIONS[1]!;
const pairs: Record<Collects, Record<string, number | null>>[] = [];
for (let round = -1; round < ROUNDS; round++) {
	const order: Collects[] = round % 2 ? ['full', 'bare'] : ['bare', 'full'];
	const pair = {} as Record<Collects, Record<string, number | null>>;
	for (const collects of order)
		pair[collects] = (await labs[collects].measure({ url: URL, conditions: desktop, steps: [] })).record.figures;
	if (round >= 0) pairs.push(pair);
}
await Promise.all(Object.values(labs).map((lab) => lab.close()));
web.close();
const rows = METRICS.map((metric): Row => {
	const values = pairs.map((pair) => [pair.bare[metric]!, pair.full[metric]!] as const);
	if (metric === 'tbt') {
		const { estimate, low, high } = pairedShift(values.map(([bare, full]) => full - bare));
		return {
			what: metric,
			measured: `${estimate.toFixed(0)} ms (${low.toFixed(0)} to ${high.toFixed(0)})`,
			limit: 'within 3 ms',
			holds: Math.abs(estimate) <= 3
		};
	}
	const { estimate, low, high } = pairedShift(values.map(([bare, full]) => Math.log(full / bare)));
	return {
		what: metric,
		measured: `${percent(Math.expm1(estimate))} (${percent(Math.expm1(low))} to ${percent(Math.expm1(high))})`,
		limit: 'within 3 %',
		holds: Math.abs(Math.expm1(estimate)) <= 0.03
	};
});
printTable(`Collecting in full against bare: shift over ${ROUNDS} rounds of a heavy page (95 % interval)`, rows);
