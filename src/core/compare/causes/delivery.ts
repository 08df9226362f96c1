/** Where files are served from, and how quickly the document is answered. */
import { mean } from '../../stats/summary';
import type { LoadDigest } from '../digest';
import { breakdownOf, type CauseRule } from './cause';

/** In more than half of the loads more, or fewer. */
const MOSTLY = 0.5;
const TELLING = 3;

function shareOf(loads: readonly LoadDigest[], fits: (load: LoadDigest) => boolean): number {
	return loads.filter(fits).length / loads.length;
}

/** The site's files come from its CDN now, or no longer. */
export const cdnCauses: CauseRule = (compared) => {
	const { before, after } = compared;
	const [was, is] = [before, after].map((loads) => shareOf(loads, (load) => load.facts.ownCdn)) as [number, number];
	if (Math.abs(is - was) <= MOSTLY) return [];
	const shift = breakdownOf(compared, 'full')?.shift || 1;
	const values = { change: is > was ? 'on' : 'off' };
	return [{ kind: 'cdn', subject: 'CDN', metric: 'full', shift, values, factor: TELLING }];
};

/** The document is answered sooner or later, perhaps by a page cache. */
export const firstByteCauses: CauseRule = ({ before, after }) => {
	const firstByte = (loads: readonly LoadDigest[]) => mean(loads.map((load) => load.figures.ttfb ?? 0));
	const hits = (loads: readonly LoadDigest[]) => shareOf(loads, (load) => load.facts.documentCache === 'hit');
	const change = hits(after) - hits(before);
	const cache = change > MOSTLY ? 'on' : change < -MOSTLY ? 'off' : 'same';
	return [
		{
			kind: 'first-byte',
			subject: cache === 'same' ? 'first byte' : 'page cache',
			metric: 'lcp',
			shift: firstByte(after) - firstByte(before),
			values: { cache },
			factor: cache === 'same' ? 1 : TELLING
		}
	];
};
