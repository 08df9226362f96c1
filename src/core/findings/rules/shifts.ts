/** What moved, by how much, and what caused it (Layout Instability). */
import { rollups, sum } from 'd3-array';
import type { RequestRecord, ShiftRecord } from '../../load/record/record';
import type { RuleId } from '../finding';
import { NO_COST, NO_EVIDENCE } from '../finding';
import { selectorResource, type Inspection } from '../inspection';
import type { FindingRule } from '../rule';

/** Of the page's shift (house). */
const LEAST_SHIFT = 0.01;
/** What came within this before a shift may have caused it (house). */
const RIGHT_BEFORE_MS = 150;

type Cause = 'shift-by-font' | 'shift-by-picture' | 'shift-by-insertion';

interface Moved {
	selector: string;
	value: number;
	atMs: number;
	cause: Cause;
	/** What came just before. */
	request: RequestRecord | null;
}

/** A shift is shared equally by the elements that it names: the browser gives no parts. */
export function movedElements(inspection: Pick<Inspection, 'record' | 'requests' | 'images'>): Moved[] {
	return inspection.record.shifts
		.filter(({ recentInput, elements }) => !recentInput && elements.length > 0)
		.flatMap((shift) => {
			const { cause, request } = causeOf(shift, inspection);
			return shift.elements.map(({ selector }) => ({
				selector,
				value: shift.value / shift.elements.length,
				atMs: shift.atMs,
				cause,
				request
			}));
		});
}

function causeOf(
	{ atMs }: ShiftRecord,
	{ requests, images }: Pick<Inspection, 'requests' | 'images'>
): { cause: Cause; request: RequestRecord | null } {
	const before = requests.filter(({ endMs }) => endMs !== null && atMs >= endMs && atMs - endMs <= RIGHT_BEFORE_MS);
	const bare = new Set(images.filter(({ roomReserved }) => !roomReserved).map(({ url }) => url));
	const picture = before.find(({ url }) => bare.has(url));
	if (picture) return { cause: 'shift-by-picture', request: picture };
	const font = before.find(({ type }) => type === 'font');
	return font ? { cause: 'shift-by-font', request: font } : { cause: 'shift-by-insertion', request: null };
}

const shiftRule =
	(rule: RuleId & Cause): FindingRule =>
	(inspection) =>
		rollups(
			movedElements(inspection).filter(({ cause }) => cause === rule),
			(own) => ({ value: sum(own, ({ value }) => value), first: own[0]! }),
			({ selector }) => selector
		)
			.filter(([, { value }]) => value >= LEAST_SHIFT)
			.map(([selector, { value, first }]) => ({
				rule,
				resource: selectorResource(selector),
				cost: { ...NO_COST, metric: 'cls' as const, delay: value },
				evidence: { ...NO_EVIDENCE, request: first.request?.id ?? null, selector, atMs: first.atMs },
				saving: null,
				limit: { most: LEAST_SHIFT, unit: 'unitless' as const },
				values: { shift: value, by: first.request?.url ?? '' }
			}));

export const shiftByFont = shiftRule('shift-by-font');
export const shiftByPicture = shiftRule('shift-by-picture');
export const shiftByInsertion = shiftRule('shift-by-insertion');
