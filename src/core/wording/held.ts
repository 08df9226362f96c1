/** The sentence that stands on a verdict when much of an arm's work is only postponed. */
import type { HeldBackRecord } from '../load/record';
import { formatBytes, formatDuration } from './format';

/** From here on a load is not what the visitor gets (house). */
const NOTABLE_SHARE = 0.1;
const NOTABLE_SCRIPT_MS = 100;

export function wordHeld(seen: { heldBack: HeldBackRecord | null; wire: number | null; score: number | null } | undefined, arm: string): string {
	const held = seen?.heldBack;
	if (!held) return '';
	const share = seen.wire ? held.wireBytes / (seen.wire + held.wireBytes) : 0;
	if (share < NOTABLE_SHARE && held.scriptMs < NOTABLE_SCRIPT_MS) return '';
	const after = held.figuresWith.score;
	const scores = seen.score !== null && after !== null ? ` With it the score is ${after.toFixed(0)} instead of ${seen.score.toFixed(0)}.` : '';
	return `“${arm}” holds work back until the visitor moves: ${held.requests} requests, ${formatBytes(held.wireBytes)} (${Math.round(share * 100)}\u00a0% of its bytes) and ${formatDuration(held.scriptMs)} of script come then.${scores}`;
}
