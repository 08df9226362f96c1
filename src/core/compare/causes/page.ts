/** What the page itself does differently: when it asks for its LCP resource, what moves, what blocks. */
import { breakdownOf, sumOfShifts, type CauseRule } from './cause';

/** The LCP resource is asked for sooner or later. */
export const discoveryCauses: CauseRule = (compared) => {
	const delay = breakdownOf(compared, 'lcp')?.parts.find((part) => part.key === 'resourceDelay');
	return [{ kind: 'discovery', subject: 'LCP discovery', metric: 'lcp', shift: delay?.shift ?? 0, values: {} }];
};

/** The element whose shifts changed most. */
export const layoutCauses: CauseRule = (compared) => {
	const jump = breakdownOf(compared, 'cls')?.parts[0];
	if (!jump) return [];
	return [{ kind: 'layout', subject: 'layout', metric: 'cls', shift: jump.shift, values: { element: jump.name } }];
};

const LESS_TELLING = 0.8;

/** The site's own scripts and layout block longer or shorter. */
export const ownBlockingCauses: CauseRule = (compared) => {
	const work = breakdownOf(compared, 'tbt')?.parts.filter((part) => part.owner?.kind !== 'third-party') ?? [];
	const shift = sumOfShifts(work);
	return [{ kind: 'own-blocking', subject: 'main thread', metric: 'tbt', shift, values: {}, factor: LESS_TELLING }];
};
