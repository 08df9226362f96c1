/** The agency that writes the reports. */
import * as v from 'valibot';
import { Colour } from '../clients/colour';

const text = (name: string, most: number) =>
	v.pipe(v.string(`${name} is text.`), v.trim(), v.maxLength(most, `${name} has at most ${most} characters.`));

export const Agency = v.object(
	{
		name: v.optional(text('The name', 120), ''),
		contact: v.optional(text('The contact', 300), ''),
		accent: v.optional(v.union([v.literal(''), Colour], 'Write a colour as #1F6F54.'), ''),
		/** Under every report. */
		standing: v.optional(text('The standing text', 2000), ''),
		/** The same for reports in Spanish. */
		standingEs: v.optional(text('The standing text', 2000), '')
	},
	'Send an object that describes the agency.'
);
export type Agency = v.InferOutput<typeof Agency>;
