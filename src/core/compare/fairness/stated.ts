/** What the loads of an arm state in so many words: status, cache, protocol ... */
import type { FairFacts } from '../digest';
import { factsOfSide, lineState, text, UNKNOWN, type FairnessRule, type LineId, type Side } from './line';

type Pick = (facts: FairFacts) => string | null;

/** A rule that compares what all loads of each arm state. */
function stated(id: LineId, pick: Pick): FairnessRule {
	return ({ before, after }) => {
		const [was, is] = [statementOf(before, pick), statementOf(after, pick)];
		const state = lineState(was !== null && is !== null, was === is);
		return {
			id,
			state,
			values: [was, is].map((words) => (words === null ? UNKNOWN : text(words))) as never,
			about: {}
		};
	};
}

/** The value that all loads share, or what they vary between; null when none is known. */
function statementOf(side: Side, pick: Pick): string | null {
	const values = [...new Set(factsOfSide(side).map(pick))];
	if (!values.length || values.every((value) => value === null || value === 'unknown')) return null;
	return values
		.map((value) => value ?? 'unknown')
		.sort()
		.join(', ');
}

const listed = (items: readonly string[]) => items.join(', ') || 'none';

export const browser = stated('browser', (facts) => facts.browser);
export const status = stated('status', (facts) => (facts.status === null ? null : String(facts.status)));
export const redirects = stated('redirects', (facts) => String(facts.redirects));
export const compression = stated('compression', (facts) => facts.documentEncoding);
export const protocol = stated('protocol', (facts) => facts.protocol);
export const host = stated('host', (facts) => facts.server);
export const cdn = stated('cdn', (facts) => (facts.ownCdn ? 'yes' : 'no'));
export const overlay = stated('overlay', (facts) => (facts.overlay ? 'shown' : 'none'));
export const fonts = stated('fonts', (facts) => listed(facts.fonts));
export const thirdParties = stated('third-parties', (facts) => listed(facts.thirdParties));
