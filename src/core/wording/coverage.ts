/** What a choice of pages stands for, in a line. */
import type { Coverage } from '../pages/coverage';

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;
const pagesOf = (n: number) => (n === 1 ? 'One page' : `${n} pages`);

/** "6 pages: 5 of 5 types, 71 % of visits". */
export function coverageLine({ pages, types, traffic }: Coverage): string {
	const parts = [
		types.all ? `${types.covered} of ${types.all} types` : '',
		traffic === null ? '' : `${percent(traffic)} of visits`
	].filter(Boolean);
	return parts.length ? `${pagesOf(pages)}: ${parts.join(', ')}` : pagesOf(pages);
}

/** The same for a choice that may be empty. */
export const coverageWords = ({ coverage }: { coverage: Coverage }): string =>
	coverage.pages ? coverageLine(coverage) : 'No page chosen yet';

/** What one more page would add. */
export function nextWords({ newType, addedTraffic }: { newType: string | null; addedTraffic: number | null }): string {
	const visits = addedTraffic === null ? '' : `${percent(addedTraffic)} of visits`;
	if (newType === null) return visits && `adds ${visits}`;
	return `adds the type “${newType}”${visits ? ` and ${visits}` : ''}`;
}

export { percent as sharePercent };
