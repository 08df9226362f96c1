/** The part of the address behind `#`: a section and what is chosen in it, `#timeline&owner=x&open=12`. */
import { replaceState } from '$app/navigation';
import { page } from '$app/state';

import { parseFragment, writeFragment } from './fragmentText';

/** What the address asks of a section, once the page is in a browser; empty elsewhere. */
export function readSection(section: string): Record<string, string> {
	if (typeof location === 'undefined') return {};
	const fragment = parseFragment(location.hash);
	return fragment.section === section ? fragment.values : {};
}

/** Keep a section's state in the address, without a new entry in the history. */
export function saveSection(section: string, values: Record<string, string>): void {
	const url = new URL(page.url);
	url.hash = writeFragment(section, values);
	replaceState(url, page.state);
}

/** A fragment with values names no element of its own: scroll to its section. */
export function goToSection(): void {
	const { section, values } = parseFragment(location.hash);
	if (section && Object.keys(values).length) document.getElementById(section)?.scrollIntoView();
}
