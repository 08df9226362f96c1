/** The sentence that stands on a verdict when much of an arm's work comes late. */
import type { LateFacts } from '../compare/late/facts';
import { formatBytes, formatDuration } from './format';

/** From here on a load is not what the visitor gets (house). */
const NOTABLE_SHARE = 0.1;
const NOTABLE_SCRIPT_MS = 100;

/** Facts of one late load; no comparison, since nothing was judged. Empty when it showed next to nothing. */
export function wordLate(late: LateFacts | null, arm: string): string {
	if (!late) return '';
	const { kind, wireBytes, scriptMs, fromMs, settledMs, figures } = late;
	const share = figures.wire ? wireBytes / (figures.wire + wireBytes) : 0;
	if (share < NOTABLE_SHARE && scriptMs < NOTABLE_SCRIPT_MS) return '';
	const requests = `${late.requests} ${late.requests === 1 ? 'request' : 'requests'}`;
	const work = `${requests}, ${formatBytes(wireBytes)} (${Math.round(share * 100)}\u00a0% of its bytes) and ${formatDuration(scriptMs)} of script`;
	if (kind === 'held-back')
		return `“${arm}” waits for interaction: in one load ${work} came only after the visitor moved.`;
	const after = formatDuration(Math.max(0, fromMs - (settledMs ?? 0)));
	return `“${arm}” postpones work: in one load ${work} came by itself, from ${after} after the page had settled.`;
}
