/** A figure of another program beside the nearest own one, and why the two differ. */
import { metricOf, type Figures, type MetricId } from '../metrics/catalogue';
import { countedLoads } from '../trial/judge/counted';
import type { TrialDesign, TrialLoad } from '../trial/types';
import { quantileSorted } from 'd3-array';
import type { OutsideFigure } from './document';

/** What Zafra measured of the same metric. */
export interface OwnFigures {
	device: 'phone' | 'desktop';
	scope: 'page';
	from: 'lab';
	/** One figure a load, in the metric's unit. */
	values: readonly number[];
	/** The same loads by the program's own definition; null where it states none, or it was not measured. */
	defined: readonly number[] | null;
}

/** Middle figure of loads and their ends. */
export interface Spread {
	median: number;
	low: number;
	high: number;
	loads: number;
}

export type DifferenceReason =
	'recipe' | 'lab-or-field' | 'device' | 'scope' | 'one-load' | 'place' | 'unknown-device' | 'unknown-source';

export interface OutsideComparison {
	/** In the metric's unit. */
	value: number;
	/** Why it can't be as told; null where it can. */
	implausible: 'too-small' | 'too-large' | 'wrong-unit' | null;
	own: Spread | null;
	/** Own loads as the program counts; null where that is not known. */
	defined: Spread | null;
	/** Outside minus own middle figure; null without own figures, or where the two may not be subtracted. */
	difference: number | null;
	/** What of it the program's own definition makes; null where that is not known. */
	byDefinition: number | null;
	/**
	 * Share of the own loads with a smaller figure, counted as the program counts where that is known: where one load of
	 * ours would lie; null without own figures.
	 */
	position: number | null;
	/** Within the spread of those loads: nothing is left to explain. */
	isWithinSpread: boolean;
	/** What makes the two figures different things, the weightiest first. */
	reasons: DifferenceReason[];
}

const FACTORS: Partial<Record<OutsideFigure['unit'], number>> = { s: 1000, kB: 1000, MB: 1_000_000 };
const UNITS_OF: Record<string, readonly OutsideFigure['unit'][]> = {
	ms: ['ms', 's'],
	bytes: ['bytes', 'kB', 'MB'],
	unitless: ['unitless'],
	count: ['count'],
	points: ['points']
};
/** No page paints within a few ms of the navigation: light takes longer to the next town and back (house). */
const LEAST_MS = 20;
const MOST_MS = 600_000;
const MOST_SHIFT = 100;

/** What loads measured of the same metric, and by the figure's own definition. @returns null where none did */
export function ownFiguresOf(
	loads: readonly { figures: Readonly<Partial<Figures>> }[],
	{ metric, definition }: Pick<OutsideFigure, 'metric' | 'definition'>,
	device: OwnFigures['device']
): OwnFigures | null {
	const valuesOf = (id: MetricId) => loads.flatMap(({ figures }) => figures[id] ?? []);
	const values = valuesOf(metric);
	if (!values.length) return null;
	return { device, scope: 'page', from: 'lab', values, defined: definition === null ? null : valuesOf(definition) };
}

/** Counted loads of a variant under some conditions. @returns null for conditions that the trial has not */
export function ownFiguresIn(
	{ design, loads }: { design: TrialDesign; loads: readonly TrialLoad[] },
	{ condition, arm }: { condition: string; arm: number },
	figure: Pick<OutsideFigure, 'metric' | 'definition'>
): (OwnFigures & { conditions: string }) | null {
	const conditions = design.conditions.find(({ id }) => id === condition);
	const own = countedLoads(design, loads).filter(
		({ armId, conditionId }) => armId === arm && conditionId === condition
	);
	const found = conditions && ownFiguresOf(own, figure, conditions.device.mobile ? 'phone' : 'desktop');
	return found ? { ...found, conditions: conditions.name } : null;
}

/**
 * @param nearest own loads of the same page; null where there are none
 */
export function compareOutside(outside: OutsideFigure, nearest: OwnFigures | null): OutsideComparison {
	const value = outside.value * (FACTORS[outside.unit] ?? 1);
	const own = spreadOf(nearest?.values ?? []);
	const isStated = outside.definition !== null && outside.definition !== outside.metric;
	const defined = isStated ? spreadOf(nearest?.defined ?? []) : null;
	const beside = defined ?? own;
	const counted = defined ? nearest!.defined! : (nearest?.values ?? []);
	const implausible = implausibility(outside, value);
	const reasons = reasonsOf(outside, nearest);
	const isComparable = own !== null && implausible === null && !reasons.includes('recipe');
	return {
		value,
		implausible,
		own,
		defined,
		byDefinition: isComparable && defined ? defined.median - own.median : null,
		difference: isComparable ? value - own.median : null,
		position: isComparable ? counted.filter((figure) => figure < value).length / counted.length : null,
		isWithinSpread: isComparable && value >= beside!.low && value <= beside!.high,
		reasons
	};
}

function spreadOf(values: readonly number[]): Spread | null {
	const sorted = [...values].sort((a, b) => a - b);
	if (!sorted.length) return null;
	return { median: quantileSorted(sorted, 0.5)!, low: sorted[0]!, high: sorted.at(-1)!, loads: sorted.length };
}

function implausibility({ metric, unit }: OutsideFigure, value: number): OutsideComparison['implausible'] {
	const { unit: own } = metricOf(metric);
	if (!UNITS_OF[own]!.includes(unit)) return 'wrong-unit';
	if (value < 0) return 'too-small';
	if (own === 'ms' && isWholePage(metric)) return value < LEAST_MS ? 'too-small' : value > MOST_MS ? 'too-large' : null;
	if (own === 'points') return value > 100 ? 'too-large' : null;
	if (own === 'unitless') return value > MOST_SHIFT ? 'too-large' : null;
	return null;
}

/** Times that hold at least a request and its answer. */
const isWholePage = (metric: MetricId) => !['tbt', 'inp', 'stepShown', 'stepQuiet'].includes(metric);

function reasonsOf(outside: OutsideFigure, own: OwnFigures | null): DifferenceReason[] {
	return [
		outside.metric === 'score' && 'recipe',
		outside.from === 'field' && 'lab-or-field',
		own && outside.device !== 'unknown' && outside.device !== own.device && 'device',
		outside.scope === 'origin' && 'scope',
		outside.loads === 1 && 'one-load',
		outside.place !== '' && 'place',
		outside.device === 'unknown' && 'unknown-device',
		outside.from === 'unknown' && 'unknown-source'
	].filter((reason): reason is DifferenceReason => typeof reason === 'string');
}
