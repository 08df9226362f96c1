/** Colours as people type them: #1F6F54, or #A33 for #AA3333 (CSS Color 4, hexadecimal notation). */
import * as v from 'valibot';

export const Colour = v.pipe(
	v.string(),
	v.trim(),
	v.regex(/^#([0-9a-f]{3}|[0-9a-f]{6})$/i, 'Write a colour as #1F6F54.'),
	v.transform((text) => (text.length === 4 ? text.replace(/[0-9a-f]/gi, '$&$&') : text))
);
