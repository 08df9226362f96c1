/** The sentence that stands on a verdict when much of an arm's work is only postponed. */
import type { HeldBackRecord } from '../load/record';
import { formatBytes, formatDuration } from './format';

/** From here on a load is not what the visitor gets (house). */
const NOTABLE_SHARE = 0.1;
const NOTABLE_SCRIPT_MS = 100;

/** Facts of one load with a simulated interaction; no comparison, since nothing was judged. */
export function wordHeld(
	seen: { heldBack: HeldBackRecord | null; wire: number | null } | undefined,
	arm: string
): string {
	const held = seen?.heldBack;
	if (!held) return '';
	const share = seen.wire ? held.wireBytes / (seen.wire + held.wireBytes) : 0;
	if (share < NOTABLE_SHARE && held.scriptMs < NOTABLE_SCRIPT_MS) return '';
	const requests = `${held.requests} ${held.requests === 1 ? 'request' : 'requests'}`;
	return `“${arm}” waits for interaction: in one load ${requests}, ${formatBytes(held.wireBytes)} (${Math.round(share * 100)}\u00a0% of its bytes) and ${formatDuration(held.scriptMs)} of script came only after the visitor moved.`;
}
