/** Checks that were not met, and requests that no longer leave as they did. */
import type { SendState } from '../trial/mustSend';
import { formatDuration } from './format';

export function wordMissed(arm: string, { check, met, loads }: { check: string; met: number; loads: number }): string {
	return `“${arm}”: “${check}” was met in ${met} of ${loads} loads.`;
}

/** What became of a request that must leave, and left with the baseline. */
export function wordSend(arm: string, state: SendState): string {
	const { name, sent, loads } = state;
	return `“${arm}”: ${name} left in ${sent} of ${loads} loads while they loaded; ${wordFate(state)}.`;
}

/** "only after an interaction" */
export function wordFate({ fate, lateMs }: SendState): string {
	switch (fate) {
		case 'sent':
			return 'sent';
		case 'late':
			return `by itself only at ${formatDuration(lateMs ?? 0)}`;
		case 'after-input':
			return 'only after an interaction';
		case 'never':
			return 'never, not after an interaction either';
		case 'unknown':
			return 'whether it leaves later is not known';
	}
}
