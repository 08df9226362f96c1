/** Why a trial rests, in a sentence. */
import { stagesOf } from '../trial/design/comparisons';
import type { EndReason, TrialStatus } from '../trial/design/status';
import type { TrialDesign } from '../trial/types';

const ENDED: Record<EndReason, string> = {
	analyst: 'Stopped by the analyst.',
	'disk-full':
		'The disk is full, so the trial was stopped. What was measured is kept. Make room in the data folder, then press “Go on”.',
	'no-load-succeeded':
		'Not one load succeeded, so that there is nothing to compare. The reasons stand beside the loads; repeat the trial when they are mended.'
};

/**
 * @param stage the last stage that was started, from 0
 * @returns null when the state says all
 */
export function describeTrialState(
	{ status, reason }: { status: TrialStatus; reason: EndReason | null },
	design: Pick<TrialDesign, 'arms'>,
	stage: number
): string | null {
	if (status === 'paused') return 'Paused by the analyst.';
	if (reason) return ENDED[reason];
	if (status !== 'waiting') return null;
	const [measured, next] = stagesOf(design).slice(Math.max(0, stage));
	if (!next)
		return `“${measured?.name}” is measured. Make the next change on the site and write it down, or end the log.`;
	return `“${measured?.name}” is measured. Make the change on the site, then start “${next?.name}”.`;
}
