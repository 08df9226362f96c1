/** Which column of a table says what, as the query of an upload names it. */
import { NotPossible } from '../base/refusal';

/** Places from 0 by the names of the fields; null to go by the heading. @throws NotPossible for what is no place */
export function columnsFrom(query: URLSearchParams, fields: readonly string[]): Record<string, number | null> | null {
	if (!query.has('address')) return null;
	const places = fields.map((field) => {
		const text = query.get(field) ?? '';
		if (text !== '' && !/^\d{1,3}$/.test(text))
			throw new NotPossible(422, `“${field}” is the place of a column, from 0.`, field);
		return [field, text === '' ? null : Number(text)] as const;
	});
	return Object.fromEntries(places);
}

/** Place of the heading among the lines that are not empty, from 0; null to look for it. @throws NotPossible */
export function headerFrom(query: URLSearchParams): number | null {
	const text = query.get('header') ?? '';
	if (text === '') return null;
	if (!/^\d{1,2}$/.test(text))
		throw new NotPossible(422, '“header” is the place of the heading’s line, from 0.', 'header');
	return Number(text);
}
