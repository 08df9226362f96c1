/** Which addresses the lab opens: web pages, and nothing else that a browser could show. */

/** Whether a parsed address is http or https. */
export function isWebUrl(url: URL): boolean {
	return (url.protocol === 'http:' || url.protocol === 'https:') && url.hostname !== '';
}

/** Whether text is a full http or https address with a host and without a user name or password. */
export function isWebAddress(text: string): boolean {
	try {
		const url = new URL(text);
		return isWebUrl(url) && url.username === '' && url.password === '' && !/\s/.test(text);
	} catch {
		return false;
	}
}

/** The same for a step, whose address may be relative to the page. */
export function isWebReference(text: string): boolean {
	try {
		return isWebUrl(new URL(text, 'https://page.test/'));
	} catch {
		return false;
	}
}

/** The address without user name and password, which never enter a record. */
export function withoutCredentials(text: string): string {
	try {
		const url = new URL(text);
		url.username = '';
		url.password = '';
		return url.href;
	} catch {
		return text;
	}
}

const LABEL_LENGTH = 60;

/** "/timetable", or the host of a page that has no path: what a page of several is called. */
export function pageLabel(url: string): string {
	const { host, pathname, search } = new URL(url);
	const label = pathname === '/' && !search ? host : `${pathname}${search}`;
	return label.length > LABEL_LENGTH ? `${label.slice(0, LABEL_LENGTH - 1)}…` : label;
}
