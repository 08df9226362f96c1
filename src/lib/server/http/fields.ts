/** What fields of forms hold, as they are typed. */
import * as v from 'valibot';

/** An absent field is an empty one. */
export const Text = v.optional(v.string(), '');
export const Tick = v.optional(v.boolean(), false);
export const Ticked = v.optional(v.boolean(), true);
export const Texts = v.optional(v.array(v.string()), []);
/** Null for an empty one. */
export const Figure = v.optional(v.nullable(v.number('Write a number.')), null);

/** A form without fields: a button. */
export const BUTTON = v.object({});
/** A button of one row. */
export const ROW = v.object({ id: Text });
/** A button of some rows. */
export const PAGES = v.object({ page: Texts });

/** Lines that hold something. */
export const linesOf = (text: string): string[] =>
	text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
/** Words between spaces and commas. */
export const wordsOf = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);
