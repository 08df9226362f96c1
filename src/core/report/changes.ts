/** What is new in a version of a report since the one before. */
import { citedIn, type ReportView } from './view';

export interface ReportChanges {
	/** Figures whose words differ, by reference. */
	figures: { ref: string; before: string; after: string }[];
	/** Headings of blocks that came or went. */
	added: string[];
	removed: string[];
	isTitleChanged: boolean;
	/** All words are others then: only figures are compared. */
	isLanguageChanged: boolean;
}

export function changesBetween(before: ReportView, after: ReportView): ReportChanges {
	const was = new Map(citedIn(before).map(({ ref, text }) => [ref, text]));
	const is = new Map(citedIn(after).map(({ ref, text }) => [ref, text]));
	const isLanguageChanged = before.language !== after.language;
	const isSame = isLanguageChanged ? haveSameNumbers : (a: string, b: string) => a === b;
	const headings = (view: ReportView, other: ReportView) =>
		view.blocks.filter(({ id }) => !other.blocks.some((block) => block.id === id)).map(({ heading }) => heading);
	return {
		figures: [...is].flatMap(([ref, text]) => {
			const earlier = was.get(ref);
			return earlier !== undefined && !isSame(earlier, text) ? [{ ref, before: earlier, after: text }] : [];
		}),
		added: headings(after, before),
		removed: headings(before, after),
		isTitleChanged: before.title !== after.title,
		isLanguageChanged
	};
}

/** "1,240 ms" and "1.240 ms" are one figure in two languages: digits in their order, without what parts them. */
const haveSameNumbers = (a: string, b: string): boolean => digitsOf(a) === digitsOf(b);

const digitsOf = (text: string): string =>
	(text.match(/[−-]?\d[\d.,\s\u00a0\u202f]*/g) ?? []).map((number) => number.replace(/[^\d−-]/g, '')).join(' ');
