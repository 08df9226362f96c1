/** What the arms' pages run on and who visits them, as the analyst wrote it down. */
import { NO_SETUP, type Setup } from '../../trial/design/setup';
import { lineState, text, UNKNOWN, type FairnessRule, type LineValue } from './line';

const orUnknown = (words: string): LineValue => (words ? text(words) : UNKNOWN);

/** Signed in, with a basket: pages for such visitors come past most caches. */
export const visitor: FairnessRule = ({ before, after }) => {
	const [was, is] = [before.arm.before?.name ?? null, after.arm.before?.name ?? null];
	if (was === null && is === null) return null;
	const valueOf = (name: string | null): LineValue => (name === null ? { kind: 'anonymous' } : text(name));
	return { id: 'visitor', state: lineState(true, was === is), values: [valueOf(was), valueOf(is)], about: {} };
};

export const tiers: FairnessRule = ({ before, after }) => {
	const [old, now] = [before.arm.setup ?? NO_SETUP, after.arm.setup ?? NO_SETUP];
	const [was, is] = [tiersOf(old), tiersOf(now)];
	const state = lineState(was !== '' && is !== '', isPaid(old) === isPaid(now));
	return { id: 'tiers', state, values: [orUnknown(was), orUnknown(is)], about: {} };
};

function tiersOf({ components }: Setup): string {
	return components
		.filter(({ tier }) => tier !== 'unknown')
		.map(({ name, tier }) => `${name}: ${tier}`)
		.sort()
		.join(', ');
}

const isPaid = ({ components }: Setup) => components.some(({ tier }) => tier === 'paid');

export const features: FairnessRule = ({ before, after }) => {
	const [old, now] = [before.arm.setup ?? NO_SETUP, after.arm.setup ?? NO_SETUP];
	const names = [...new Set([...Object.keys(old.features), ...Object.keys(now.features)])].sort();
	const uneven = names.filter((name) => old.features[name] !== now.features[name]);
	const state = lineState(names.length > 0, uneven.length === 0);
	const about = { uneven: uneven.length, names: uneven.join(', ') };
	return { id: 'features', state, values: [listOf(old, names), listOf(now, names)], about };
};

function listOf({ features: given }: Setup, names: readonly string[]): LineValue {
	const wordFor = (name: string) => (given[name] === undefined ? 'unknown' : given[name] ? 'on' : 'off');
	return orUnknown(names.map((name) => `${name}: ${wordFor(name)}`).join(', '));
}
