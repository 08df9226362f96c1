/** The part of the address behind `#`: a section and what is chosen in it, `#timeline&owner=x&open=12`. */
export interface Fragment {
	section: string;
	values: Record<string, string>;
}

export function parseFragment(hash: string): Fragment {
	const [section = '', ...rest] = hash.replace(/^#/, '').split('&');
	return { section, values: Object.fromEntries(new URLSearchParams(rest.join('&'))) };
}

export function writeFragment(section: string, values: Record<string, string>): string {
	const kept = Object.entries(values).filter(([, value]) => value !== '');
	const query = new URLSearchParams(kept).toString();
	return `#${section}${query ? `&${query}` : ''}`;
}

/** A query that says which parts of a sheet are open. @param search with or without `?`; the rest of it stays */
export function queryWithOpen(search: string, open: readonly string[]): string {
	const query = new URLSearchParams(search);
	if (open.length) query.set('open', open.join(','));
	else query.delete('open');
	const text = query.toString().replaceAll('%2C', ',');
	return text ? `?${text}` : '';
}
