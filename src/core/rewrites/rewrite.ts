/**
 * What the lab changes of a page on its way, as data: what is done, where, and with which values. They are applied in
 * the order in which they stand.
 */
import * as v from 'valibot';
import { allSelectors } from '../load/journey/selector';
import type { Target } from './target';

const text = (name: string, most: number) =>
	v.pipe(
		v.string(`${name} is text.`),
		v.trim(),
		v.nonEmpty(`${name} must not be empty.`),
		v.maxLength(most, `${name} has at most ${most} characters.`)
	);
const host = v.pipe(
	text('The host', 253),
	v.toLowerCase(),
	v.regex(/^[\w.-]+(:\d{1,5})?$/, 'Write a host as chat.example.')
);
const address = text('The address', 2000);
const selector = v.pipe(
	text('The selector', 500),
	allSelectors((one: string) => [one])
);
const pixels = v.pipe(
	v.number('Pixels are a number.'),
	v.integer('Pixels are whole.'),
	v.minValue(1, 'Pixels are 1 or more.'),
	v.maxValue(20_000, 'At most 20,000 pixels.')
);

/** Requests by whose they are, by host, or by address with `*` for anything: one of the three. */
const target = {
	/** Registrable domain of the owner: everything of it. */
	owner: v.optional(host),
	host: v.optional(host),
	address: v.optional(address)
};
const namesOne = ({ owner, host: own, address: pattern }: Target): boolean =>
	[owner, own, pattern].filter((part) => part !== undefined).length === 1;
const ONE = 'Name one: an owner, a host or an address.';

/** Longest delay, ms. */
const MOST_DELAY_MS = 60_000;

export const Rewrite = v.union(
	[
		/** The thing is not there: its elements are taken out, what still asks for it gets nothing. */
		v.pipe(
			v.strictObject({ do: v.literal('block'), ...target }),
			v.check((own) => namesOne(own), ONE)
		),
		/** Later by a time; or its elements are put in again once the page has come to rest, or at the first input. */
		v.pipe(
			v.strictObject({
				do: v.literal('delay'),
				...target,
				ms: v.optional(
					v.pipe(v.number('The delay is a number.'), v.integer(), v.minValue(1), v.maxValue(MOST_DELAY_MS))
				),
				until: v.optional(v.picklist(['settled', 'input'], 'Until “settled” or “input”.'))
			}),
			v.check((own) => namesOne(own), ONE),
			v.check(({ ms, until }) => (ms === undefined) !== (until === undefined), 'Say “ms” or “until”, one of them.')
		),
		/** From the page's own host instead of another one. */
		v.strictObject({ do: v.literal('own-host'), host }),
		/** A picture in another size and format; text without spaces and comments; a font with some signs only. */
		v.pipe(
			v.strictObject({
				do: v.literal('replace'),
				address,
				with: v.picklist(['picture', 'style', 'script', 'font'], 'With “picture”, “style”, “script” or “font”.'),
				width: v.optional(pixels),
				height: v.optional(pixels),
				format: v.optional(v.picklist(['jpeg', 'png', 'webp', 'avif'], 'There is no such format.')),
				quality: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100))),
				/** Of a font: those that stay. */
				signs: v.optional(v.pipe(v.string(), v.maxLength(20_000)))
			}),
			v.check((own) => own.with !== 'font' || own.signs !== undefined, 'Name the signs that the font keeps.')
		),
		/** Text is sent with Brotli where the browser takes it, else gzip. */
		v.strictObject({ do: v.literal('compress'), address: v.optional(address) }),
		/** A header of the answer; null takes it out. */
		v.strictObject({
			do: v.literal('header'),
			address,
			name: v.pipe(text('The header', 100), v.toLowerCase(), v.regex(/^[\w-]+$/, 'This is no name of a header.')),
			value: v.nullable(v.pipe(v.string(), v.regex(/^[^\r\n]*$/, 'A header is one line.'), v.maxLength(2000)))
		}),
		v.strictObject({
			do: v.literal('preload'),
			address,
			as: v.picklist(['image', 'font', 'style', 'script'], 'Preload an image, font, style or script.'),
			priority: v.optional(v.picklist(['high', 'low', 'auto']))
		}),
		v.strictObject({ do: v.literal('preconnect'), host }),
		/** Null takes the attribute out. */
		v.strictObject({
			do: v.literal('attribute'),
			selector,
			name: v.pipe(text('The attribute', 60), v.toLowerCase(), v.regex(/^[a-z][\w:-]*$/, 'This is no attribute.')),
			value: v.nullable(v.pipe(v.string(), v.maxLength(4000)))
		}),
		/** Room for what comes later. */
		v.strictObject({ do: v.literal('room'), selector, width: pixels, height: pixels }),
		v.strictObject({ do: v.literal('remove'), selector }),
		v.strictObject({
			do: v.literal('insert'),
			selector,
			where: v.picklist(['before', 'after', 'first', 'last'], 'Insert “before”, “after”, “first” or “last”.'),
			markup: text('The markup', 50_000)
		}),
		/** In one file, for what no other rewrite foresees. */
		v.pipe(
			v.strictObject({
				do: v.literal('text'),
				address,
				find: text('The text to find', 2000),
				/** It is a regular expression. */
				isPattern: v.optional(v.boolean(), false),
				replacement: v.pipe(v.string(), v.maxLength(50_000))
			}),
			v.check(({ find, isPattern }) => !isPattern || isExpression(find), 'This is no regular expression.')
		)
	],
	'There is no such rewrite.'
);
export type Rewrite = v.InferOutput<typeof Rewrite>;

export const MOST_REWRITES = 40;

function isExpression(source: string): boolean {
	try {
		return new RegExp(source).source !== '';
	} catch {
		return false;
	}
}

/** Two that exclude each other, in words; null where none do. */
export function conflictIn(rewrites: readonly Rewrite[]): string | null {
	const replaced = rewrites.flatMap((own) => (own.do === 'replace' ? [own.address] : []));
	const twice = replaced.find((own, i) => replaced.indexOf(own) !== i);
	if (twice) return `${twice} is replaced twice: one of them would undo the other.`;
	const blocked = new Set(rewrites.flatMap((own) => (own.do === 'block' && own.address ? [own.address] : [])));
	const both = replaced.find((own) => blocked.has(own));
	return both ? `${both} is blocked and replaced: one of them would undo the other.` : null;
}

export const Rewrites = v.pipe(
	v.array(Rewrite, 'Give a list of rewrites.'),
	v.maxLength(MOST_REWRITES, `At most ${MOST_REWRITES} rewrites.`),
	v.rawCheck(({ dataset, addIssue }) => {
		const problem = dataset.typed ? conflictIn(dataset.value) : null;
		if (problem) addIssue({ message: problem });
	})
);
