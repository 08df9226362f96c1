/** Shifts broken down into parts that add up to them. */
import type { Owner } from '../load/requests/owners';
import { mean } from '../stats/summary';
import type { MetricId } from '../metrics/catalogue';
import type { LoadDigest } from './digest';

/** One part of a shift. Means per load, in the unit of the breakdown. */
export interface Part {
	key: string;
	name: string;
	/** Whose it is; null where nobody owns it. */
	owner: Owner | null;
	/** Short type tag of a file; empty elsewhere. */
	kind: string;
	before: number;
	after: number;
	shift: number;
	state: 'added' | 'gone' | 'changed' | 'alike';
}

export interface Breakdown {
	metric: MetricId;
	/** Means over the loads of each arm; their difference is the shift that the parts add up to. */
	before: number;
	after: number;
	shift: number;
	/** Largest shift first. */
	parts: Part[];
	/** Sum of parts minus the shift: rounding only, or a part that could not be told. */
	remainder: number;
}

type Values = { key: string; name: string; owner: Owner | null; kind: string; value: number }[];

/** Means of each key over all loads; a load without the key counts as zero. */
function tally(loads: readonly LoadDigest[], pick: (load: LoadDigest) => Values): Map<string, Values[number]> {
	const sums = new Map<string, Values[number]>();
	for (const load of loads)
		for (const part of pick(load)) {
			const existing = sums.get(part.key);
			if (existing) existing.value += part.value;
			else sums.set(part.key, { ...part });
		}
	for (const part of sums.values()) part.value /= loads.length;
	return sums;
}

function partsOf(
	before: readonly LoadDigest[],
	after: readonly LoadDigest[],
	pick: (load: LoadDigest) => Values,
	alikeWithin = 0
): Part[] {
	const [old, now] = [tally(before, pick), tally(after, pick)];
	const keys = new Set([...old.keys(), ...now.keys()]);
	return [...keys]
		.map((key): Part => {
			const [was, is] = [old.get(key), now.get(key)];
			const { name, owner, kind } = (is ?? was)!;
			const shift = (is?.value ?? 0) - (was?.value ?? 0);
			const state = !was
				? 'added'
				: !is
					? 'gone'
					: Math.abs(shift) <= Math.max(alikeWithin, 0.001 * Math.abs(was.value))
						? 'alike'
						: 'changed';
			return { key, name, owner, kind, before: was?.value ?? 0, after: is?.value ?? 0, shift, state };
		})
		.sort((a, b) => Math.abs(b.shift) - Math.abs(a.shift) || a.key.localeCompare(b.key));
}

const fileValues =
	(field: 'wireBytes' | 'count') =>
	(load: LoadDigest): Values =>
		load.files.map((file) => ({
			key: file.key,
			name: file.name,
			owner: file.owner,
			kind: file.kind,
			value: file[field]
		}));

const PICKS: Partial<Record<MetricId, (load: LoadDigest) => Values | null>> = {
	score: (load) =>
		load.scoreCosts.length
			? load.scoreCosts.map(({ metric, cost }) => ({ key: metric, name: metric, owner: null, kind: '', value: -cost }))
			: null,
	wire: fileValues('wireBytes'),
	requests: fileValues('count'),
	lcp: (load) =>
		load.lcpParts &&
		Object.entries(load.lcpParts).map(([key, value]) => ({ key, name: key, owner: null, kind: '', value })),
	tbt: (load) =>
		load.blocking.map(({ owner, ms }) => ({
			key: owner.kind === 'third-party' ? owner.id : owner.id === 'browser' ? 'browser' : 'own',
			name: owner.name,
			owner,
			kind: '',
			value: ms
		})),
	cls: (load) =>
		load.shifts.map(({ element, value }) => ({ key: element, name: element, owner: null, kind: '', value })),
	full: (load) =>
		load.tail.map(({ owner, ms }) => ({
			key: owner.kind === 'third-party' ? owner.id : owner.id === 'page' ? 'page' : 'own',
			name: owner.name,
			owner,
			kind: '',
			value: ms
		}))
};

/** The figures that can be broken down, in the order in which they are shown. */
const EXPLAINED = Object.keys(PICKS) as MetricId[];

/** Differences of a file's bytes within this are alike: headers carry dates and counters (house). */
const ALIKE_BYTES = 64;

/** Files of both arms with their bytes on the wire. */
export function compareFiles(before: readonly LoadDigest[], after: readonly LoadDigest[]): Part[] {
	return partsOf(before, after, fileValues('wireBytes'), ALIKE_BYTES);
}

/**
 * Of each metric that can be explained and that both arms have.
 * @param before digests of the baseline's counted loads under some conditions @param after those of the arm
 */
export function findBreakdowns(before: readonly LoadDigest[], after: readonly LoadDigest[]): Breakdown[] {
	return EXPLAINED.flatMap((metric) => breakDown(metric, before, after));
}

function breakDown(metric: MetricId, before: readonly LoadDigest[], after: readonly LoadDigest[]): Breakdown[] {
	const pick = PICKS[metric]!;
	const usable = (loads: readonly LoadDigest[]) =>
		loads.filter((load) => load.figures[metric] !== null && pick(load) !== null);
	const [old, now] = [usable(before), usable(after)];
	if (!old.length || !now.length) return [];
	const parts = partsOf(old, now, (load) => pick(load)!);
	const [from, to] = [old, now].map((loads) => mean(loads.map((load) => load.figures[metric]!))) as [number, number];
	const sum = parts.reduce((all, part) => all + part.shift, 0);
	return [
		{
			metric,
			before: from,
			after: to,
			shift: to - from,
			parts: parts.filter((part) => part.before !== 0 || part.after !== 0 || metric === 'score'),
			remainder: sum - (to - from)
		}
	];
}
