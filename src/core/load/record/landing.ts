/** Whether a load ended where it was sent, and what the page there is built like. */
import type { LoadRecord } from './record';
import { markupCode } from './signature';

/** Another host or path; that a slash was added, or https, is none. */
export function leadsElsewhere(url: string, finalUrl: string): boolean {
	if (!URL.canParse(url) || !URL.canParse(finalUrl)) return false;
	const [asked, got] = [new URL(url), new URL(finalUrl)];
	const path = ({ pathname }: URL) => pathname.replace(/\/$/, '');
	return asked.hostname !== got.hostname || path(asked) !== path(got);
}

/** Where it ended, where that is another page; null where it stayed. */
export const landedElsewhere = ({ url, finalUrl }: { url: string; finalUrl: string }): string | null =>
	leadsElsewhere(url, finalUrl) ? finalUrl : null;

/** What is noted beside a load of where it ended. */
export interface Landing {
	landed: string | null;
	/** Code of the page's markup; empty where it is not known. */
	markup: string;
}

export const landingOf = (record: Pick<LoadRecord, 'url' | 'finalUrl' | 'page'>): Landing => ({
	landed: landedElsewhere(record),
	markup: markupCode(record.page?.signature ?? [])
});
