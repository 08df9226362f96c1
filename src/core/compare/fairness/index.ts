/** Everything that was equal, different or unknown between two arms, from the evidence. */
import { hasStages } from '../../trial/design/kinds';
import type { TrialDesign } from '../../trial/types';
import type { FairnessLine, FairnessRule, Side } from './line';
import { cache, conditions, failures, machine, picture, textCompression, time, words } from './measured';
import { features, tiers, visitor } from './setups';
import * as stated from './stated';

/** In the order of the sheet. */
const RULES: readonly FairnessRule[] = [
	conditions,
	stated.browser,
	machine,
	time,
	stated.status,
	stated.redirects,
	visitor,
	cache,
	stated.compression,
	textCompression,
	stated.protocol,
	stated.host,
	stated.cdn,
	stated.overlay,
	stated.fonts,
	stated.thirdParties,
	words,
	picture,
	tiers,
	features,
	failures
];

/** @param likeness share of alike pixels of the finished pages, 0 to 1; null when not compared */
export function compareFairness(
	design: Pick<TrialDesign, 'kind' | 'intended'>,
	before: Side,
	after: Side,
	likeness: number | null
): FairnessLine[] {
	const sides = { before, after, likeness, inStages: hasStages(design.kind) };
	return RULES.flatMap((rule) => {
		const line = rule(sides);
		return line ? [{ ...line, intended: design.intended?.includes(line.id) ?? false }] : [];
	});
}

/** The differences that stay on the verdict: found, and not what the question is about. */
export function restsOn<Line extends { id: string; state: string; intended: boolean }>(lines: readonly Line[]): Line[] {
	return lines.filter(
		({ id, state, intended }) => state === 'differs' && !intended && id !== 'third-parties' && id !== 'time'
	);
}
