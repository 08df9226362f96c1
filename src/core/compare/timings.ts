/** User Timing marks and measures of two variants (W3C User Timing): shown with their interval, never decided on. */
import { pairedShift } from '../stats/signedRank';
import { twoSampleShift } from '../stats/rankSum';
import type { Estimate } from '../stats/estimate';
import { median } from '../stats/summary';
import type { LoadDigest } from './digest';

export interface TimingShift {
	name: string;
	/** Rounds in which both variants set it; loads of the smaller side for stages. */
	rounds: number;
	/** Middle figures, ms. */
	baseline: number;
	arm: number;
	/** Difference in ms; its ends are null where so few rounds give no interval. */
	shift: { estimate: number; low: number | null; high: number | null };
	/** Of the interval: that of the trial's other intervals, 0.95 or 0.985. */
	level: number;
}

const MOST_TIMINGS = 20;
const LEAST_ROUNDS = 4;

type Timed = Pick<LoadDigest, 'round' | 'timings'>;

/**
 * @param before loads of the baseline @param after those of the variant
 * @param isInterleaved rounds hold a load of each: they are compared round by round
 * @param level of the intervals, 0 to 1
 */
export function compareTimings(
	before: readonly Timed[],
	after: readonly Timed[],
	isInterleaved: boolean,
	level: number
): TimingShift[] {
	const names = [...new Set(before.flatMap(({ timings }) => Object.keys(timings)))].sort();
	const compare = isInterleaved ? pairedTiming : separateTiming;
	return names
		.flatMap((name) => compare(name, before, after, 1 - level).map((timing) => ({ ...timing, level })))
		.slice(0, MOST_TIMINGS);
}

type LevelFree = Omit<TimingShift, 'level'>;
type Sides = [name: string, before: readonly Timed[], after: readonly Timed[], alpha: number];

function pairedTiming(...[name, before, after, alpha]: Sides): LevelFree[] {
	const later = new Map(after.map(({ round, timings }) => [round, timings[name]]));
	const bothTimes = before.flatMap(({ round, timings }): [number, number][] => {
		const [own, other] = [timings[name], later.get(round)];
		return own === undefined || other === undefined ? [] : [[own, other]];
	});
	if (bothTimes.length < LEAST_ROUNDS) return [];
	const shift = pairedShift(
		bothTimes.map(([own, other]) => other - own),
		alpha
	);
	return [
		timingOf(name, {
			rounds: bothTimes.length,
			own: bothTimes.map(([own]) => own),
			other: bothTimes.map(([, other]) => other),
			estimate: shift
		})
	];
}

function separateTiming(...[name, before, after, alpha]: Sides): LevelFree[] {
	const [first, second] = [before, after].map((loads) => loads.flatMap(({ timings }) => timings[name] ?? []));
	const rounds = Math.min(first!.length, second!.length);
	if (rounds < LEAST_ROUNDS) return [];
	return [timingOf(name, { rounds, own: first!, other: second!, estimate: twoSampleShift(first!, second!, alpha) })];
}

function timingOf(
	name: string,
	{
		rounds,
		own,
		other,
		estimate: { estimate, low, high }
	}: { rounds: number; own: readonly number[]; other: readonly number[]; estimate: Estimate }
): LevelFree {
	const finiteOrNull = (end: number) => (Number.isFinite(end) ? end : null);
	return {
		name,
		rounds,
		baseline: median(own),
		arm: median(other),
		shift: { estimate, low: finiteOrNull(low), high: finiteOrNull(high) }
	};
}
