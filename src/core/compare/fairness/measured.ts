/** What is measured of both arms and compared within bounds. */
import { median } from '../../stats/summary';
import type { FairFacts } from '../digest';
import { wordLikeness } from '../../stats/wordLikeness';
import { factsOfSide, lineState, text, UNKNOWN, type FairnessRule, type LineValue, type Side } from './line';

/** Shares and speeds this far apart count as equal (house). */
const SPEED_WITHIN = 0.1;
const COMPRESSED_WITHIN = 0.05;
const LEAST_WORDS = 0.9;
const LEAST_PICTURE = 0.97;

export const conditions: FairnessRule = () => {
	const copy: LineValue = { kind: 'frozen-copy' };
	return { id: 'conditions', state: 'equal', values: [copy, copy], about: {} };
};

/** Median over the loads in which it is known; null when it is in none. */
function medianOf(side: Side, pick: (facts: FairFacts) => number | null): number | null {
	const present = factsOfSide(side).flatMap((facts) => pick(facts) ?? []);
	return present.length ? median(present) : null;
}

const valueOf = (kind: 'speed' | 'share', value: number | null): LineValue =>
	value === null ? UNKNOWN : { kind, value };

export const machine: FairnessRule = ({ before, after }) => {
	const speed = (side: Side) => medianOf(side, (facts) => facts.machineSpeed);
	const [was, is] = [speed(before), speed(after)];
	const isKnown = was !== null && is !== null;
	const state = lineState(isKnown, isKnown && Math.abs(is / was - 1) <= SPEED_WITHIN);
	return { id: 'machine', state, values: [valueOf('speed', was), valueOf('speed', is)], about: {} };
};

export const time: FairnessRule = ({ before, after, inStages }) => {
	const state = lineState(before.loads.length > 0 && after.loads.length > 0, !inStages);
	const about = { order: inStages ? 'stages' : 'interleaved' };
	return { id: 'time', state, values: [spanOf(before), spanOf(after)], about };
};

function spanOf({ loads }: Side): LineValue {
	const times = loads.map((load) => load.startedAt).sort();
	return times.length ? { kind: 'span', from: times[0]!, to: times.at(-1)! } : UNKNOWN;
}

export const textCompression: FairnessRule = ({ before, after }) => {
	const share = (side: Side) => medianOf(side, (facts) => facts.compressedShare);
	const [was, is] = [share(before), share(after)];
	const isKnown = was !== null && is !== null;
	const state = lineState(isKnown, isKnown && Math.abs(was - is) < COMPRESSED_WITHIN);
	return { id: 'text-compression', state, values: [valueOf('share', was), valueOf('share', is)], about: {} };
};

/** The document from a cache of the site or its host: always, never, or now and then. */
export const cache: FairnessRule = ({ before, after }) => {
	const [was, is] = [cacheHits(before), cacheHits(after)];
	const kindOf = ({ hits, of }: typeof was) => (hits === 0 ? 'never' : hits === of ? 'always' : 'mixed');
	const state = lineState(was.of > 0 && is.of > 0, kindOf(was) === kindOf(is));
	return { id: 'cache', state, values: [hitsValue(was), hitsValue(is)], about: {} };
};

function cacheHits(side: Side): { hits: number; of: number } {
	const present = factsOfSide(side).filter(({ documentCache }) => documentCache !== 'unknown');
	return { hits: present.filter(({ documentCache }) => documentCache === 'hit').length, of: present.length };
}

const hitsValue = ({ hits, of }: { hits: number; of: number }): LineValue =>
	of === 0 ? UNKNOWN : { kind: 'cache-hits', hits, of };

export const words: FairnessRule = ({ before, after }) => {
	const both = before.loads.length > 0 && after.loads.length > 0;
	const alike = both ? wordLikeness(middleText(before), middleText(after)) : null;
	const state = lineState(alike !== null, alike !== null && alike >= LEAST_WORDS);
	const about: Record<string, string | number> =
		alike === null ? { known: 'no' } : { known: 'yes', percent: Math.round(alike * 100) };
	return { id: 'words', state, values: [titleOf(before), titleOf(after)], about };
};

const middleText = ({ loads }: Side) => loads[Math.floor(loads.length / 2)]?.facts.words ?? '';

function titleOf({ loads }: Side): LineValue {
	const title = loads[0]?.facts.title;
	return title ? text(title) : UNKNOWN;
}

export const picture: FairnessRule = ({ likeness }) => {
	const state = lineState(likeness !== null, likeness !== null && likeness >= LEAST_PICTURE);
	const value: LineValue = likeness === null ? { kind: 'not-compared' } : { kind: 'alike', value: likeness };
	return { id: 'picture', state, values: [{ kind: 'nothing' }, value], about: {} };
};

export const failures: FairnessRule = ({ before, after }) => {
	const isKnown = before.health !== null && after.health !== null;
	const state = lineState(isKnown, before.health?.failed === after.health?.failed);
	return { id: 'failures', state, values: [failuresOf(before), failuresOf(after)], about: {} };
};

function failuresOf({ health }: Side): LineValue {
	return health ? { kind: 'failures', failed: health.failed, of: health.loads } : UNKNOWN;
}
