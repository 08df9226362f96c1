/** Readings that stand alone. */
import { marginFor, type MetricId } from '../metrics/catalogue';
import { median, scaledMad } from '../stats/summary';
import type { Change } from './change';
import { settingParts } from './reading';
import type { Series } from './series';

/** A single reading far from its neighbours. */
export interface Wild {
	page: number;
	condition: string;
	metric: MetricId;
	reading: number;
}

/** How far a reading lies out, in scaled MADs, before it is marked (the same cut as for loads). */
const WILD_CUT = 3.5;
/** Fewer readings do not show what is usual. */
const LEAST_WILD = 5;

/** Far from what came before and after it without a step in between. */
export function wildOf({ history, metric, readings, blocks }: Series, changes: readonly Change[]): Wild[] {
	const steps = changes.filter(
		(change) => change.page === history.page && change.condition === history.condition && change.metric === metric
	);
	const starts = readings.flatMap((reading, i) => {
		const isBreak = i > 0 && settingParts(readings[i - 1]!.setting, reading.setting).length > 0;
		return i === 0 || isBreak || steps.some(({ after }) => after === reading.reading) ? [i] : [];
	});
	return starts.flatMap((start, i) => {
		const own = blocks.slice(start, starts[i + 1]).map(({ middle }) => middle);
		if (own.length < LEAST_WILD) return [];
		const [centre, spread] = [median(own), scaledMad(own)];
		const isFar = (middle: number) =>
			spread > 0 &&
			Math.abs(middle - centre) > WILD_CUT * spread &&
			Math.abs(middle - centre) > marginFor(metric, centre);
		return own.flatMap((middle, j) =>
			isFar(middle)
				? [{ page: history.page, condition: history.condition, metric, reading: readings[start + j]!.reading }]
				: []
		);
	});
}
