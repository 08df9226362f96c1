/**
 * What became of findings between two audits. Between audits nothing is called faster: a finding is gone when none of
 * at least three good loads shows it, new when most do, and not seen this time in between.
 */
import { isUsual, type PageFinding } from './pageFindings';

export const FATES = ['gone', 'left', 'new', 'not-seen'] as const;
export type Fate = (typeof FATES)[number];

/** Good loads without it that make a finding gone (the design's section 10). */
export const LEAST_GOOD_LOADS = 3;

/**
 * @param before findings of the page then @param now of the same page now
 * @param goodLoads of the page now @returns null for what was seen now and then, before and now
 */
export function fateOf(
	key: { rule: string; resource: string },
	{ before, now, goodLoads }: { before: readonly PageFinding[]; now: readonly PageFinding[]; goodLoads: number }
): Fate | null {
	const find = (findings: readonly PageFinding[]) =>
		findings.find(({ rule, resource }) => rule === key.rule && resource.key === key.resource);
	const [was, is] = [find(before), find(now)];
	if (was && isUsual(was)) {
		if (is && isUsual(is)) return 'left';
		return !is && goodLoads >= LEAST_GOOD_LOADS ? 'gone' : 'not-seen';
	}
	return is && isUsual(is) ? 'new' : null;
}
