/** Whether an effect went when the change was taken back, in words. */
import type { ReturnCode, ReturnFinding } from '../trial/design/returnStage';
import { plainList } from './plainNames';
import { PART_WORDS } from './parts';

/** One sentence for each way in which the effects of some conditions ended. */
export function wordReturn(findings: readonly ReturnFinding[]): string {
	return (['gone', 'stays', 'open'] as const satisfies ReturnCode[])
		.flatMap((code) => {
			const found = findings.filter((finding) => finding.code === code);
			return found.length ? [PART_WORDS.say(`return.${code}`, { metrics: plainList(found) })] : [];
		})
		.join(' ');
}
