/** Candidates side by side: by metric, each in margins from the one with the best middle figure. */
import { metricOf, type MetricId } from '../../metrics/catalogue';
import type { ShiftResult, TrialDesign } from '../types';
import { boardMark, type MarginInterval } from './board';
import { placesOf, resultsAgainst } from './places';

export interface CandidateMark {
	arm: number;
	/** Middle figure; null where nothing was measured. */
	middle: number | null;
	/** From the best; 1 is worse by one margin. Null for the best itself, and without a shift. */
	fromBest: MarginInterval | null;
	/** The result against the best, told of this candidate; null for the best itself. */
	result: ShiftResult | null;
	/** A difference from the best was called, or this is the best and no other may be. */
	isTold: boolean;
	place: { from: number; to: number } | null;
}

/** A candidate on the board of one metric, as it is drawn and read. */
export interface Lane {
	/** Id of the arm, or of the page. */
	id: number;
	name: string;
	/** Middle figure as printed. */
	figure: string;
	/** The least and the most of the loads that it stands for; empty where they are alike. */
	range: string;
	fromBest: MarginInterval | null;
	/** The one with the best middle figure: it stands at zero. */
	isBest: boolean;
	isSolid: boolean;
	/** "second or third" */
	place: string;
	/** Against the best, as a sentence with its interval; empty for the best. */
	text: string;
}

export interface LaneBoard {
	metric: string;
	name: string;
	lanes: Lane[];
}

export interface CandidateRow {
	metric: MetricId;
	/** From the best middle figure on. */
	marks: CandidateMark[];
}

/** One row for each metric that the trial decides on, under one set of conditions. */
export function candidateRows(
	{ arms, primary }: Pick<TrialDesign, 'arms' | 'primary'>,
	everyPair: readonly ShiftResult[]
): CandidateRow[] {
	return primary.flatMap((metric) => {
		const own = everyPair.filter((result) => result.primary && result.metric === metric);
		return own.length
			? [
					{
						metric,
						marks: marksOf(
							metric,
							arms.map(({ id }) => id),
							own
						)
					}
				]
			: [];
	});
}

function marksOf(metric: MetricId, arms: readonly number[], everyPair: readonly ShiftResult[]): CandidateMark[] {
	const places = placesOf(everyPair);
	const turn = metricOf(metric).higherIsBetter ? -1 : 1;
	const middleOf = (arm: number) =>
		everyPair.find(({ baseline }) => baseline === arm)?.baselineMedian ??
		everyPair.find((result) => result.arm === arm)?.armMedian ??
		null;
	const size = (arm: number) => (middleOf(arm) === null ? Infinity : turn * middleOf(arm)!);
	const placeOf = (arm: number) => places.find((place) => place.arm === arm);
	// Of equal figures the one that is surely further ahead.
	const sorted = [...arms].sort(
		(a, b) => compare(size(a), size(b)) || compare(placeOf(a)?.to ?? 99, placeOf(b)?.to ?? 99)
	);
	const [best] = sorted as [number];
	return sorted.map((arm): CandidateMark => {
		const against = resultsAgainst(everyPair, best).find((result) => result.arm === arm) ?? null;
		const place = placeOf(arm);
		return {
			arm,
			middle: middleOf(arm),
			fromBest: against && boardMark(against).inMargins,
			result: against,
			isTold: against ? ['better', 'worse', 'slight'].includes(against.verdict) : place?.from === 1 && place.to === 1,
			place: place ? { from: place.from, to: place.to } : null
		};
	});
}

const compare = (a: number, b: number) => (a === b ? 0 : a < b ? -1 : 1);
