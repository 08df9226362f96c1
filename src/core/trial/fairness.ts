/** Everything that was equal, different or unknown between two arms, from the evidence. */
import { median } from '../stats/summary';
import type { FairFacts, LoadDigest } from './digest';
import { NO_SETUP, type Setup } from './setup';
import type { ArmHealth, TrialArm, TrialDesign } from './types';

export interface FairnessLine {
	id: string;
	name: string;
	state: 'equal' | 'differs' | 'unknown';
	/** Of the baseline, of the arm. */
	values: [before: string, after: string];
	/** What a difference means for the answer. */
	meaning: string;
	/** The question is about it. */
	intended: boolean;
}

interface Side {
	arm: TrialArm;
	loads: readonly LoadDigest[];
	health: ArmHealth | null;
}

/** Machine speeds, times and words this far apart count as equal (house). */
const SPEED_WITHIN = 0.1;
const WORDS_WITHIN = 0.9;

/**
 * @param likeness share of alike pixels of the finished pages, 0 to 1; null when not compared
 * @param loadsPerArm digests of counted loads under the same conditions; may be empty
 */
export function fairnessOf(design: TrialDesign, before: Side, after: Side, likeness: number | null): FairnessLine[] {
	const lines: FairnessLine[] = [];
	const intended = new Set(design.intended ?? []);
	const add = (id: string, name: string, state: FairnessLine['state'], values: [string, string], meaning: string) =>
		lines.push({ id, name, state, values, meaning, intended: intended.has(id) });
	const facts = (side: Side) => side.loads.map((load) => load.facts);
	const both = before.loads.length > 0 && after.loads.length > 0;
	/** The value that all loads of an arm share, or what they vary between. */
	const said = (side: Side, pick: (one: FairFacts) => string | null): string => {
		const values = [...new Set(facts(side).map(pick))];
		if (!values.length || values.every((value) => value === null || value === 'unknown')) return 'unknown';
		return values
			.map((value) => value ?? 'unknown')
			.sort()
			.join(', ');
	};
	const compare = (id: string, name: string, pick: (one: FairFacts) => string | null, meaning: string) => {
		const values: [string, string] = [said(before, pick), said(after, pick)];
		add(
			id,
			name,
			values.includes('unknown') ? 'unknown' : values[0] === values[1] ? 'equal' : 'differs',
			values,
			meaning
		);
	};
	const stages = design.kind === 'before-after';

	add(
		'conditions',
		'Conditions',
		'equal',
		['the same frozen copy', 'the same frozen copy'],
		'Device, network, place and cache are those of the trial for both.'
	);
	compare('browser', 'Browser', (one) => one.browser, 'Another browser can measure the same page differently.');
	const speed = (side: Side) => {
		const known = facts(side).flatMap((one) => (one.machineSpeed === null ? [] : [one.machineSpeed]));
		return known.length ? median(known) : null;
	};
	const [fast, slow] = [speed(before), speed(after)];
	add(
		'machine',
		'Speed of the machine',
		fast === null || slow === null ? 'unknown' : Math.abs(slow / fast - 1) <= SPEED_WITHIN ? 'equal' : 'differs',
		[fast, slow].map((one) => (one === null ? 'unknown' : `${one.toFixed(0)} loops/ms`)) as [string, string],
		'A busier machine makes scripts slower: it touches TBT and everything after it.'
	);
	const span = (side: Side) => {
		const times = side.loads.map((load) => load.startedAt).sort();
		return times.length
			? `${times[0]!.slice(0, 16).replace('T', ' ')} to ${times.at(-1)!.slice(11, 16)} UTC`
			: 'unknown';
	};
	add(
		'time',
		'Time and order',
		!both ? 'unknown' : stages ? 'differs' : 'equal',
		[span(before), span(after)],
		stages
			? 'Stages follow each other: what changed on its own in between looks like the change. A reference page takes it out.'
			: 'Interleaved in random order: what drifts falls on both alike.'
	);
	compare(
		'status',
		'Status of the page',
		(one) => (one.status === null ? null : String(one.status)),
		'Another status is another page.'
	);
	compare('redirects', 'Redirects', (one) => String(one.redirects), 'Each redirect costs at least a round trip.');
	compare(
		'cache',
		'Served from a cache',
		(one) => one.documentCache,
		'A page from a cache answers sooner than one that is built anew.'
	);
	compare(
		'compression',
		'Compression of the document',
		(one) => one.documentEncoding,
		'Bytes are only comparable when both or neither are compressed.'
	);
	const share = (side: Side) => {
		const known = facts(side).flatMap((one) => (one.compressedShare === null ? [] : [one.compressedShare]));
		return known.length ? median(known) : null;
	};
	const [shareBefore, shareAfter] = [share(before), share(after)];
	add(
		'text-compression',
		'Own text that came compressed',
		shareBefore === null || shareAfter === null
			? 'unknown'
			: Math.abs(shareBefore - shareAfter) < 0.05
				? 'equal'
				: 'differs',
		[shareBefore, shareAfter].map((one) => (one === null ? 'unknown' : `${Math.round(one * 100)} %`)) as [
			string,
			string
		],
		'Uncompressed scripts and styles weigh three to five times as much.'
	);
	compare('protocol', 'Protocol', (one) => one.protocol, 'HTTP/2 and 3 load many files at once over one connection.');
	compare('host', 'Server', (one) => one.server, 'Another server or host can be quicker or slower on its own.');
	compare('cdn', 'Own CDN', (one) => (one.ownCdn ? 'yes' : 'no'), 'Files from a CDN come from nearer to the visitor.');
	compare(
		'overlay',
		'Consent or other overlay',
		(one) => (one.overlay ? 'shown' : 'none'),
		'A layer over the page can become the LCP element and hold scripts back.'
	);
	compare('fonts', 'Web fonts', (one) => one.fonts.join(', ') || 'none', 'Fonts cost requests and can shift text.');
	compare(
		'third-parties',
		'Third parties',
		(one) => one.thirdParties.join(', ') || 'none',
		'What other companies run on the page is part of its speed.'
	);
	const alike = both ? wordLikeness(commonWords(before), commonWords(after)) : null;
	add(
		'words',
		'Words of the page',
		alike === null ? 'unknown' : alike >= WORDS_WITHIN ? 'equal' : 'differs',
		[titleOf(before), titleOf(after)],
		alike === null
			? 'Without text nothing can be said about the content.'
			: `${Math.round(alike * 100)} % of the words are the same. Another content is another page.`
	);
	add(
		'picture',
		'Look of the page',
		likeness === null ? 'unknown' : likeness >= 0.97 ? 'equal' : 'differs',
		['', likeness === null ? 'not compared' : `${(likeness * 100).toFixed(1)} % of the picture alike`],
		'A page that shows less is easily faster.'
	);
	addSetups(add, before.arm.setup ?? null, after.arm.setup ?? null);
	const failures = ({ health }: Side) => (health ? `${health.failed} of ${health.loads}` : 'unknown');
	add(
		'failures',
		'Failed loads',
		!before.health || !after.health ? 'unknown' : before.health.failed === after.health.failed ? 'equal' : 'differs',
		[failures(before), failures(after)],
		'Failed loads are counted and never averaged; many of them say that the page is not reliable.'
	);
	return lines;
}

function addSetups(
	add: (id: string, name: string, state: FairnessLine['state'], values: [string, string], meaning: string) => void,
	before: Setup | null,
	after: Setup | null
): void {
	const tiers = ({ components }: Setup) =>
		components
			.filter((one) => one.tier !== 'unknown')
			.map((one) => `${one.name}: ${one.tier}`)
			.sort()
			.join(', ');
	const [old, now] = [before ?? NO_SETUP, after ?? NO_SETUP];
	const known = before !== null && after !== null;
	const tierWords: [string, string] = [tiers(old) || 'unknown', tiers(now) || 'unknown'];
	const paid = (setup: Setup) => setup.components.some((one) => one.tier === 'paid');
	add(
		'tiers',
		'Free or paid',
		!known || tierWords.includes('unknown') ? 'unknown' : paid(old) === paid(now) ? 'equal' : 'differs',
		tierWords,
		'A free tier against a paid one compares prices, not products.'
	);
	const names = [...new Set([...Object.keys(old.features), ...Object.keys(now.features)])].sort();
	const uneven = names.filter((name) => old.features[name] !== now.features[name]);
	const list = (setup: Setup) =>
		names
			.map((name) => `${name}: ${setup.features[name] === undefined ? 'unknown' : setup.features[name] ? 'on' : 'off'}`)
			.join(', ') || 'unknown';
	add(
		'features',
		'Features',
		!names.length ? 'unknown' : uneven.length ? 'differs' : 'equal',
		[list(old), list(now)],
		uneven.length
			? `Not level: ${uneven.join(', ')}. A page that does less is easily faster.`
			: 'The same features must be on in both.'
	);
}

const titleOf = ({ loads }: Side) => loads[0]?.facts.title || 'unknown';
const commonWords = ({ loads }: Side) => loads[Math.floor(loads.length / 2)]?.facts.words ?? '';

/** Share of words that two texts have in common (multiset Jaccard); 1 for two texts that say the same. Null for no text. */
export function wordLikeness(a: string, b: string): number | null {
	const count = (text: string) => {
		const words = new Map<string, number>();
		for (const word of text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []) words.set(word, (words.get(word) ?? 0) + 1);
		return words;
	};
	const [one, two] = [count(a), count(b)];
	if (!one.size && !two.size) return null;
	let shared = 0;
	let all = 0;
	for (const word of new Set([...one.keys(), ...two.keys()])) {
		shared += Math.min(one.get(word) ?? 0, two.get(word) ?? 0);
		all += Math.max(one.get(word) ?? 0, two.get(word) ?? 0);
	}
	return shared / all;
}

/** The differences that stay on the verdict: found, and not what the question is about. */
export function restsOn(lines: readonly FairnessLine[]): FairnessLine[] {
	return lines.filter(
		(line) => line.state === 'differs' && !line.intended && line.id !== 'third-parties' && line.id !== 'time'
	);
}
