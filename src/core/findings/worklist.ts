/** What becomes of a finding: by those who work on it, and by what a later audit sees. */
import type { Fate } from './since';

export const FINDING_STATES = ['open', 'accepted', 'planned', 'done', 'seen-done', 'not-worth', 'came-back'] as const;
export type FindingState = (typeof FINDING_STATES)[number];

/** What an analyst or whoever mends it may say; that it is seen done, or came back, only an audit says. */
export const SAID_STATES = [
	'open',
	'accepted',
	'planned',
	'done',
	'not-worth'
] as const satisfies readonly FindingState[];

/**
 * The state after an audit has looked again.
 * @param fate over all pages on which it was found: `gone` only where it is gone on each of them
 */
export function stateAfter(state: FindingState, fate: Fate): FindingState {
	if (fate === 'gone') return state === 'not-worth' ? 'not-worth' : 'seen-done';
	if (fate === 'new' || fate === 'left') return state === 'seen-done' ? 'came-back' : state;
	return state;
}
