/** What the page itself does differently: when it asks for its LCP resource, what moves, what blocks. */
import { rollup } from 'd3-array';
import { mean } from '../../stats/summary';
import { breakdownOf, sumOfShifts, type Candidate, type CauseRule } from './cause';

/** The LCP resource is asked for sooner or later. */
export const discoveryCauses: CauseRule = (compared) => {
	const delay = breakdownOf(compared, 'lcp')?.parts.find((part) => part.key === 'resourceDelay');
	return [{ kind: 'discovery', subject: 'LCP discovery', metric: 'lcp', shift: delay?.shift ?? 0, values: {} }];
};

/** Share of the loads in which the same file is the LCP resource. */
const MOSTLY = 0.5;

/** The LCP resource waits longer for its server, is received more slowly, or is painted later once it is there. */
export const resourceCauses: CauseRule = (compared) => {
	const { before, after } = compared;
	const partShift = (key: string) => breakdownOf(compared, 'lcp')?.parts.find((part) => part.key === key)?.shift ?? 0;
	const painted: Candidate = {
		kind: 'render-delay',
		subject: 'LCP painting',
		metric: 'lcp',
		shift: partShift('renderDelay'),
		values: {}
	};
	const [was, is] = [before, after].map((loads) => loads.flatMap(({ lcpResource }) => lcpResource ?? []));
	const name = commonName(is!, after.length);
	// Another file's waiting is none of this one's.
	if (name === null || commonName(was!, before.length) !== name) return [painted];
	const meanOf = (part: 'waitingMs' | 'receivingMs') =>
		mean(is!.map((resource) => resource[part])) - mean(was!.map((resource) => resource[part]));
	const about = { subject: name, metric: 'lcp', values: { name } } as const;
	return [
		{ ...about, kind: 'resource-wait', shift: meanOf('waitingMs') },
		{ ...about, kind: 'resource-receive', shift: meanOf('receivingMs') },
		painted
	];
};

function commonName(resources: readonly { name: string }[], loads: number): string | null {
	const counts = rollup(
		resources,
		(own) => own.length,
		({ name }) => name
	);
	return [...counts].find(([, count]) => count > MOSTLY * loads)?.[0] ?? null;
}

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
