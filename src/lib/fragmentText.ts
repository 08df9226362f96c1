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

/** A query with some values changed; an empty value goes. @param search with or without `?`; the rest of it stays */
export function queryWith(search: string, changes: Readonly<Record<string, string>>): string {
	const query = new URLSearchParams(search);
	for (const [name, value] of Object.entries(changes))
		if (value) query.set(name, value);
		else query.delete(name);
	const text = query.toString().replaceAll('%2C', ',');
	return text ? `?${text}` : '';
}

/** A query that says which parts of a sheet are open. */
export const queryWithOpen = (search: string, open: readonly string[]): string =>
	queryWith(search, { open: open.join(',') });

/** The parts of a sheet that a query names as open. */
export const openIn = (search: URLSearchParams): string[] => (search.get('open') ?? '').split(',').filter(Boolean);
