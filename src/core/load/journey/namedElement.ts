/** Elements of a page that somebody named, to know when each is first seen. */
import * as v from 'valibot';

export const MOST_ELEMENTS = 5;

export const NamedElement = v.object({
	/** As tables call it: "Search form". */
	name: v.pipe(
		v.string('Name the element.'),
		v.trim(),
		v.nonEmpty('Name the element, then =, then its selector: Search form = #search'),
		v.maxLength(60, 'A name has at most 60 characters.')
	),
	selector: v.pipe(
		v.string('Give a selector.'),
		v.trim(),
		v.nonEmpty('Give a selector after the =: Search form = #search'),
		v.maxLength(300, 'A selector has at most 300 characters.')
	)
});
export type NamedElement = v.InferOutput<typeof NamedElement>;

export const NamedElements = v.pipe(
	v.array(NamedElement, 'Elements are a list.'),
	v.maxLength(MOST_ELEMENTS, `At most ${MOST_ELEMENTS} elements.`),
	v.check(
		(all) => new Set(all.map(({ name }) => name)).size === all.length,
		'Two elements have the same name: each needs one of its own.'
	)
);

/** A line each, "name = selector"; a line without a name is refused by the schema. */
export const parseElements = (text: string): { name: string; selector: string }[] =>
	text
		.split('\n')
		.filter((line) => line.trim())
		.map((line) => {
			const at = line.indexOf('=');
			// An attribute selector has an = of its own: the name stands before the first.
			return { name: line.slice(0, Math.max(0, at)).trim(), selector: line.slice(at + 1).trim() };
		});

export const elementLines = (elements: readonly NamedElement[]): string =>
	elements.map(({ name, selector }) => `${name} = ${selector}`).join('\n');
