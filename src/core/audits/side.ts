/** Side checks of an audit's pages, by what is wrong: beside every score. */
import { rollups } from 'd3-array';
import type { HeadCheck, SideChecks } from '../load/journey/sideChecks';

export interface SideFinding {
	/** Rule of axe, or a check of the head. */
	check: string;
	kind: 'access' | 'head';
	/** As axe puts it; empty for the head, which has words of its own. */
	help: string;
	impact: string | null;
	/** On the page where it is most. */
	count: number;
	/** Elements, or what was found; of that page. */
	where: string[];
	/** Numbers of the pages. */
	pages: number[];
}

/** @param checked side checks by page, of any device: a page has what any of its devices shows */
export function sideFindings(checked: readonly { page: number; checks: SideChecks }[]): SideFinding[] {
	const all = checked.flatMap(({ page, checks }) => [
		...(checks.axe ?? []).map(({ id, help, impact, count, selectors }) => ({
			page,
			check: id,
			kind: 'access' as const,
			help,
			impact,
			count,
			where: selectors
		})),
		...checks.head
			.filter(({ isGood }) => !isGood)
			.map(({ check, value }) => ({
				page,
				check: check as HeadCheck,
				kind: 'head' as const,
				help: '',
				impact: null,
				count: 1,
				where: value ? [value] : []
			}))
	]);
	return rollups(
		all,
		(own) => {
			const most = own.reduce((a, b) => (b.count > a.count ? b : a));
			const { page: _page, ...rest } = most;
			return { ...rest, pages: [...new Set(own.map(({ page }) => page))].sort((a, b) => a - b) };
		},
		({ kind, check }) => `${kind}/${check}`
	)
		.map(([, finding]) => finding)
		.sort((a, b) => b.pages.length - a.pages.length || b.count - a.count);
}
