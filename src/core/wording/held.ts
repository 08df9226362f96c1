/** The sentence that stands on a verdict when much of an arm's work comes late. */
import type { LateFacts } from '../compare/late/facts';
import { formatBytes, formatDuration } from './format';
import { localNumber } from './localNumber';
import { ENGLISH, type EvidenceWords } from './words';

/** From here on a load is not what the visitor gets (house). */
const NOTABLE_SHARE = 0.1;
const NOTABLE_SCRIPT_MS = 100;

/** Facts of one late load; no comparison, since nothing was judged. Empty when it showed next to nothing. */
export function wordLate(late: LateFacts | null, arm: string, words: EvidenceWords = ENGLISH): string {
	if (!late) return '';
	const { kind, wireBytes, scriptMs, fromMs, settledMs, figures } = late;
	const share = figures.wire ? wireBytes / (figures.wire + wireBytes) : 0;
	if (share < NOTABLE_SHARE && scriptMs < NOTABLE_SCRIPT_MS) return '';
	const local = (text: string) => localNumber(text, words.language);
	const work = words.say('late.work', {
		n: late.requests,
		bytes: local(formatBytes(wireBytes)),
		percent: Math.round(share * 100),
		script: local(formatDuration(scriptMs))
	});
	const after = local(formatDuration(Math.max(0, fromMs - (settledMs ?? 0))));
	return words.say(`late.${kind}`, { arm, work, after });
}
