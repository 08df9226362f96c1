/** Checks that were not met, and requests that no longer leave as they did. */
import type { SendState } from '../trial/design/mustSend';
import { formatDuration } from './format';
import { localNumber } from './localNumber';
import { ENGLISH, type EvidenceWords } from './words';

export function wordMissed(
	arm: string,
	{ check, met, loads }: { check: string; met: number; loads: number },
	words: EvidenceWords = ENGLISH
): string {
	return words.say('missed.check', { arm, check, met, loads });
}

/** What became of a request that must leave, and left with the baseline. */
export function wordSend(arm: string, state: SendState, words: EvidenceWords = ENGLISH): string {
	const { name, sent, loads } = state;
	return words.say('missed.send', { arm, name, sent, loads, fate: wordFate(state, words) });
}

/** "only after an interaction" */
export function wordFate({ fate, lateMs }: SendState, words: EvidenceWords = ENGLISH): string {
	return words.say(`missed.fate.${fate}`, { at: localNumber(formatDuration(lateMs ?? 0), words.language) });
}
