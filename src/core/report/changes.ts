/** What is new in a version of a report since the one before. */
import { citedIn, type ReportView } from './view';

export interface ReportChanges {
	/** Figures whose words differ, by reference. */
	figures: { ref: string; before: string; after: string }[];
	/** Headings of blocks that came or went. */
	added: string[];
	removed: string[];
	isTitleChanged: boolean;
}

export function changesBetween(before: ReportView, after: ReportView): ReportChanges {
	const was = new Map(citedIn(before).map(({ ref, text }) => [ref, text]));
	const is = new Map(citedIn(after).map(({ ref, text }) => [ref, text]));
	const headings = (view: ReportView, other: ReportView) =>
		view.blocks.filter(({ id }) => !other.blocks.some((block) => block.id === id)).map(({ heading }) => heading);
	return {
		figures: [...is].flatMap(([ref, text]) => {
			const earlier = was.get(ref);
			return earlier !== undefined && earlier !== text ? [{ ref, before: earlier, after: text }] : [];
		}),
		added: headings(after, before),
		removed: headings(before, after),
		isTitleChanged: before.title !== after.title
	};
}
