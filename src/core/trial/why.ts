/** Why an arm differs: the shift of each figure broken down into parts that add up to it. */
import type { Owner } from '../load/owners';
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

export interface Cause {
	/** Sentence for the analyst. */
	words: string;
	metric: MetricId;
	shift: number;
	/** Owner id or a word for what of the site's own it was. */
	subject: string;
	/** Size beside the margin-like scale of its metric, for ranking. */
	weight: number;
}

export interface Why {
	breakdowns: Breakdown[];
	/** Files of both arms, for the ledger; bytes on the wire. */
	files: Part[];
	requests: { added: number; gone: number; changed: number; alike: number };
	causes: Cause[];
	/** Mean bytes, requests and script time held back until somebody moves, where nudged loads exist. */
	lcpElements: { before: string | null; after: string | null };
}

type Values = { key: string; name: string; owner: Owner | null; kind: string; value: number }[];

/** Means of each key over all loads; a load without the key counts as zero. */
function tally(loads: readonly LoadDigest[], pick: (load: LoadDigest) => Values): Map<string, Values[number]> {
	const sums = new Map<string, Values[number]>();
	for (const load of loads)
		for (const one of pick(load)) {
			const known = sums.get(one.key);
			if (known) known.value += one.value;
			else sums.set(one.key, { ...one });
		}
	for (const one of sums.values()) one.value /= loads.length;
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
const LCP_PARTS = {
	firstByte: 'first byte',
	resourceDelay: 'until its resource was asked for',
	resourceLoad: 'loading its resource',
	renderDelay: 'until it was painted'
} as const;

const PICKS: Partial<Record<MetricId, (load: LoadDigest) => Values | null>> = {
	score: (load) =>
		load.scoreCosts.length
			? load.scoreCosts.map(({ metric, cost }) => ({ key: metric, name: metric, owner: null, kind: '', value: -cost }))
			: null,
	wire: fileValues('wireBytes'),
	requests: fileValues('count'),
	lcp: (load) =>
		load.lcpParts &&
		Object.entries(load.lcpParts).map(([key, value]) => ({
			key,
			name: LCP_PARTS[key as keyof typeof LCP_PARTS],
			owner: null,
			kind: '',
			value
		})),
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
export const EXPLAINED = Object.keys(PICKS) as MetricId[];

/** What counts as one step of a metric when causes are ranked against each other (house; the absolute margins). */
const SCALE: Partial<Record<MetricId, number>> = { wire: 10_000, requests: 2, lcp: 100, tbt: 50, cls: 0.02, full: 100 };

/**
 * @param before digests of the baseline's counted loads under some conditions @param after those of the arm; each at
 * least one
 * @throws RangeError for no loads
 */
export function whyOf(before: readonly LoadDigest[], after: readonly LoadDigest[]): Why {
	if (!before.length || !after.length) throw new RangeError('There are no loads to explain.');
	const breakdowns = EXPLAINED.flatMap((metric): Breakdown[] => {
		const pick = PICKS[metric]!;
		const usable = (loads: readonly LoadDigest[]) =>
			loads.filter((load) => load.figures[metric] !== null && pick(load) !== null);
		const [old, now] = [usable(before), usable(after)];
		if (!old.length || !now.length) return [];
		const parts = partsOf(old, now, (load) => pick(load)!);
		const offset = metric === 'score' ? 100 : 0;
		const [from, to] = [mean(old.map((load) => load.figures[metric]!)), mean(now.map((load) => load.figures[metric]!))];
		const sum = parts.reduce((all, part) => all + part.shift, 0);
		return [
			{
				metric,
				before: from,
				after: to,
				shift: to - from,
				parts: parts.filter((part) => part.before !== 0 || part.after !== 0 || offset > 0),
				remainder: sum - (to - from)
			}
		];
	});
	const files = partsOf(before, after, fileValues('wireBytes'), 64);
	const count = (state: Part['state']) => files.filter((file) => file.state === state).length;
	return {
		breakdowns,
		files,
		requests: { added: count('added'), gone: count('gone'), changed: count('changed'), alike: count('alike') },
		causes: causesOf(before, after, breakdowns, files),
		lcpElements: {
			before: commonest(before.map((load) => load.lcpElement)),
			after: commonest(after.map((load) => load.lcpElement))
		}
	};
}

function commonest(values: readonly (string | null)[]): string | null {
	const counts = new Map<string | null, number>();
	for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
	return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

const kB = (bytes: number) => `${(Math.abs(bytes) / 1000).toFixed(Math.abs(bytes) < 100_000 ? 1 : 0)}\u00a0kB`;
const ms = (value: number) =>
	Math.abs(value) < 1000 ? `${Math.abs(value).toFixed(0)}\u00a0ms` : `${(Math.abs(value) / 1000).toFixed(2)}\u00a0s`;
const more = (value: number) => (value > 0 ? 'more' : 'less');

/** What most likely made the difference, most telling first: owners that came or went, and what changed of the site's own. */
function causesOf(
	before: readonly LoadDigest[],
	after: readonly LoadDigest[],
	breakdowns: readonly Breakdown[],
	files: readonly Part[]
): Cause[] {
	const causes: Cause[] = [];
	const add = (subject: string, metric: MetricId, shift: number, words: string, factor = 1) => {
		const weight = (Math.abs(shift) / SCALE[metric]!) * factor;
		if (weight >= 0.5) causes.push({ subject, metric, shift, words, weight });
	};
	// Third parties that came, went or changed.
	const thirds = new Map<string, Owner>();
	for (const load of [...before, ...after])
		for (const file of load.files) if (file.owner.kind === 'third-party') thirds.set(file.owner.id, file.owner);
	for (const owner of thirds.values()) {
		const own = files.filter((file) => file.owner?.id === owner.id);
		const bytes = own.reduce((sum, file) => sum + file.shift, 0);
		const requests =
			breakdowns
				.find((one) => one.metric === 'requests')
				?.parts.filter((part) => part.owner?.id === owner.id)
				.reduce((sum, part) => sum + part.shift, 0) ?? 0;
		const blocking =
			breakdowns.find((one) => one.metric === 'tbt')?.parts.find((part) => part.owner?.id === owner.id)?.shift ?? 0;
		const tail =
			breakdowns.find((one) => one.metric === 'full')?.parts.find((part) => part.owner?.id === owner.id)?.shift ?? 0;
		const state = own.every((file) => file.state === 'added')
			? 'was added'
			: own.every((file) => file.state === 'gone')
				? 'is gone'
				: 'changed';
		// A third party that comes or goes as a whole tells more than its bytes.
		const factor = state === 'changed' ? 1 : 2;
		const byCount = Math.abs(requests) / 2 > Math.abs(bytes) / 10_000;
		const size =
			Math.abs(requests) >= 0.5
				? `${Math.abs(requests).toFixed(0)} requests and ${kB(bytes)} ${more(bytes)}`
				: `${kB(bytes)} ${more(bytes)}`;
		// A sentence for each metric: it is told only where that metric has a verdict.
		add(
			owner.id,
			byCount ? 'requests' : 'wire',
			byCount ? requests : bytes,
			`${owner.name} ${state}: ${size}.`,
			factor
		);
		add(owner.id, 'tbt', blocking, `${owner.name} ${state}: it blocks ${ms(blocking)} ${more(blocking)}.`, factor);
		add(
			owner.id,
			'full',
			tail,
			`${owner.name} ${state}: the page is complete ${ms(tail)} ${tail > 0 ? 'later' : 'sooner'} for it.`,
			0.3
		);
	}
	// The site's own files: compression, images, scripts, by what kind of change explains most bytes.
	const own = files.filter((file) => file.owner && file.owner.kind !== 'third-party');
	const encodings = (loads: readonly LoadDigest[]) =>
		new Map(loads.flatMap((load) => load.files.map((file) => [file.key, file.encoding] as const)));
	const [was, is] = [encodings(before), encodings(after)];
	const recoded = own.filter((file) => file.state === 'changed' && was.get(file.key) !== is.get(file.key));
	const sum = (list: readonly Part[]) => list.reduce((all, file) => all + file.shift, 0);
	if (recoded.length) {
		const [from, to] = [was.get(recoded[0]!.key), is.get(recoded[0]!.key)];
		add(
			'compression',
			'wire',
			sum(recoded),
			`Compression of ${recoded.length} text ${recoded.length === 1 ? 'file' : 'files'} changed from ${from} to ${to}: ${kB(sum(recoded))} ${more(sum(recoded))}.`,
			1.5
		);
	}
	const groups: [string, string, readonly Part[]][] = [
		['images', 'Images', own.filter((file) => file.kind === 'img')],
		['scripts', 'The site’s own scripts', own.filter((file) => file.kind === 'js' && !recoded.includes(file))],
		['styles', 'Style sheets', own.filter((file) => file.kind === 'css' && !recoded.includes(file))],
		['fonts', 'Fonts', own.filter((file) => file.kind === 'font')],
		['document', 'The document', own.filter((file) => file.kind === 'html' && !recoded.includes(file))]
	];
	for (const [subject, name, list] of groups) {
		const moved = list.filter((file) => file.state !== 'alike');
		const shift = sum(moved);
		const states = (['added', 'gone', 'changed'] as const)
			.map((state) => [state, moved.filter((file) => file.state === state).length] as const)
			.filter(([, n]) => n > 0);
		add(
			subject,
			'wire',
			shift,
			`${name}: ${kB(shift)} ${more(shift)} (${states.map(([state, n]) => `${n} ${state}`).join(', ')}).`
		);
	}
	// Where the files are served from, and how quickly the document is answered.
	const fromCdn = (loads: readonly LoadDigest[]) => loads.filter((load) => load.facts.ownCdn).length / loads.length;
	const moved = fromCdn(after) - fromCdn(before);
	const lcp = breakdowns.find((one) => one.metric === 'lcp');
	if (Math.abs(moved) > 0.5)
		add(
			'CDN',
			'full',
			breakdowns.find((one) => one.metric === 'full')?.shift || 1,
			`The site’s files come ${moved > 0 ? 'from its CDN now' : 'no longer from its CDN'}.`,
			3
		);
	const firstByte =
		mean(after.map((load) => load.figures.ttfb ?? 0)) - mean(before.map((load) => load.figures.ttfb ?? 0));
	const hits = (loads: readonly LoadDigest[]) =>
		loads.filter((load) => load.facts.documentCache === 'hit').length / loads.length;
	const cached = hits(after) - hits(before);
	const cacheWords =
		cached > 0.5 ? ': it comes from a page cache now' : cached < -0.5 ? ': it no longer comes from a page cache' : '';
	add(
		cacheWords ? 'page cache' : 'first byte',
		'lcp',
		firstByte,
		`The document’s first byte comes ${ms(firstByte)} ${firstByte > 0 ? 'later' : 'sooner'}${cacheWords}.`,
		cacheWords ? 3 : 1
	);
	const delay = lcp?.parts.find((part) => part.key === 'resourceDelay')?.shift ?? 0;
	add('LCP discovery', 'lcp', delay, `The LCP resource is asked for ${ms(delay)} ${delay > 0 ? 'later' : 'sooner'}.`);
	const shifts = breakdowns.find((one) => one.metric === 'cls');
	const jump = shifts?.parts[0];
	if (jump)
		add(
			'layout',
			'cls',
			jump.shift,
			`${jump.name} moves ${jump.shift > 0 ? 'more' : 'less'}: ${Math.abs(jump.shift).toFixed(3)} of CLS.`
		);
	const work =
		breakdowns.find((one) => one.metric === 'tbt')?.parts.filter((part) => part.owner?.kind !== 'third-party') ?? [];
	const blocking = work.reduce((all, part) => all + part.shift, 0);
	add(
		'main thread',
		'tbt',
		blocking,
		`The site’s own scripts and layout block ${ms(blocking)} ${more(blocking)}.`,
		0.8
	);
	return causes.sort((a, b) => b.weight - a.weight);
}
