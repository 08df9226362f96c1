/** Visitor states: what a visitor did, or is known by, before the page that is measured: signed in, basket filled. */
import * as v from 'valibot';
import { WebAddress } from '../requests/addressInput';
import { NOT_SHOWN } from '../conditions/conditions';
import { Steps } from './steps';

const cookie = v.object({
	name: v.pipe(
		v.string('A cookie has a name.'),
		v.regex(/^[!#$%&'*+.^_`|~0-9A-Za-z-]{1,200}$/, 'The name of a cookie has letters, digits and signs without spaces.')
	),
	value: v.pipe(v.string('A cookie has a value.'), v.maxLength(4000, 'A cookie has at most 4,000 characters.'))
});

export const VisitorState = v.pipe(
	v.object({
		name: v.pipe(
			v.string('Give the visitor state a name.'),
			v.trim(),
			v.nonEmpty('Give the visitor state a name.'),
			v.maxLength(60, 'A name has at most 60 characters.')
		),
		/** Where the steps begin and to whom the cookies belong; null is the page that is measured. */
		url: v.optional(v.nullable(WebAddress), null),
		steps: v.optional(Steps, []),
		cookies: v.optional(v.pipe(v.array(cookie), v.maxLength(50, 'At most 50 cookies.')), [])
	}),
	v.check(
		({ steps, cookies }) => steps.length + cookies.length > 0,
		'Give steps or cookies: without them the visitor stays anonymous.'
	)
);
export type VisitorState = v.InferOutput<typeof VisitorState>;

/** Whether a cookie or a text to type is missing, as in a state that came from another Zafra. */
export function stateLacksSecrets({ steps, cookies }: Pick<VisitorState, 'steps' | 'cookies'>): boolean {
	return (
		cookies.some(({ value }) => value === NOT_SHOWN) || steps.some((step) => 'type' in step && step.type === NOT_SHOWN)
	);
}

/** "name=value", one a line or parted by semicolons, as a Cookie header writes them. @throws Error in words */
export function parseCookies(text: string): VisitorState['cookies'] {
	return text
		.split(/[;\n]/)
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line) => {
			const at = line.indexOf('=');
			const read = v.safeParse(cookie, {
				name: line.slice(0, Math.max(0, at)).trim(),
				value: line.slice(at + 1).trim()
			});
			if (at < 1 || !read.success) throw new Error(`“${line}” is no cookie: write “name=value”.`);
			return read.output;
		});
}

export const cookieLines = (cookies: VisitorState['cookies']): string =>
	cookies.map(({ name, value }) => `${name}=${value}`).join('\n');
