/** How gathering pages went, in sentences. */
import type { GatherProblem } from '../pages/gathering';
import { CONFIRM_MONTHS, type RemovalReason } from '../setups/register';
import { ENGLISH } from './words';

/** What, where and what to do. */
export function describeGatherProblem({ where, fault, detail }: GatherProblem): string {
	return ENGLISH.say(`gather.${fault}`, { where, detail: /^\d*$/.test(detail) ? Number(detail) : detail });
}

export interface GatheringFacts {
	what: 'sitemap' | 'crawl' | 'types' | 'file' | 'traffic' | 'pasted';
	isDone: boolean;
	asked: number;
	found: number;
	saved: { added: number; known: number } | null;
	left: { foreign: number; bad: number; over: number } | null;
}

/** Empty for what was typed: the list itself shows it. */
export function describeGathering({ what, isDone, asked, found, saved, left }: GatheringFacts): string {
	if (what === 'pasted') return '';
	if (!isDone)
		return what === 'file' || what === 'traffic' ? '' : ENGLISH.say(`gather.doing.${what}`, { asked, found });
	const { added = 0, known = 0 } = saved ?? {};
	const rest = left ? ENGLISH.say('gather.left', { ...left }) : '';
	return `${ENGLISH.say(`gather.done.${what}`, { asked, added, known })}${rest}.`;
}

export const describeRemoval = (reasons: readonly RemovalReason[]): string =>
	reasons.map((reason) => ENGLISH.say(`removal.${reason}`, { months: CONFIRM_MONTHS })).join('; ');
