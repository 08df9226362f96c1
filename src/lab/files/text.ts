/** Text made smaller: really packed, minified, and cut. */
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { minify as minifyMarkup } from 'html-minifier-terser';
import { transform } from 'lightningcss';
import { optimize } from 'svgo';
import { minify as minifyScript } from 'terser';
import type { Packed } from '$core/findings/bodyFacts';
import type { Span } from '$core/load/requests/coverage';

const squeeze = promisify(gzip);
const brotli = promisify(brotliCompress);

/** gzip level 9 (RFC 1952) and Brotli quality 11 (RFC 7932), as for files that are packed once. */
export async function packed(text: string): Promise<Packed> {
	const bytes = Buffer.from(text);
	const [gzipped, squeezed] = await Promise.all([
		squeeze(bytes, { level: 9 }),
		brotli(bytes, {
			params: {
				[constants.BROTLI_PARAM_QUALITY]: 11,
				[constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_TEXT,
				[constants.BROTLI_PARAM_SIZE_HINT]: bytes.length
			}
		})
	]);
	return { plain: bytes.length, gzip: gzipped.length, brotli: squeezed.length };
}

export type TextKind = 'script' | 'style' | 'markup' | 'svg';

/** What a text is, by its resource type and media; null for what no minifier is for. */
export function textKind(type: string, media: string): TextKind | null {
	if (/svg/.test(media)) return 'svg';
	if (type === 'script' || /javascript|ecmascript/.test(media)) return 'script';
	if (type === 'stylesheet' || /css/.test(media)) return 'style';
	return type === 'document' || /html/.test(media) ? 'markup' : null;
}

const MINIFIERS: Readonly<Record<TextKind, (text: string) => Promise<string> | string>> = {
	script: async (text) => (await minifyScript(text, { module: isModule(text) })).code ?? text,
	style: (text) =>
		Buffer.from(
			transform({ filename: 'style.css', code: Buffer.from(text), minify: true, errorRecovery: true }).code
		).toString(),
	// What a page may show differently without is left alone.
	markup: (text) => minifyMarkup(text, { collapseWhitespace: true, conservativeCollapse: true, removeComments: true }),
	svg: (text) => optimize(text, { multipass: true }).data
};

const isModule = (text: string) => /^\s*(import|export)\b/m.test(text);

/** @throws Error for a text that its minifier cannot read */
export const minified = async (kind: TextKind, text: string): Promise<string> => MINIFIERS[kind](text);

/**
 * The text without what was of no use: of a style sheet the rules, of a script the insides of functions that never ran,
 * so that it can still be read.
 */
export function cut(kind: 'script' | 'style', text: string, unused: readonly Span[]): string {
	let [at, kept] = [0, ''];
	for (const span of unused) {
		const [from, to] = kind === 'style' ? span : insideOf(text, span);
		if (from < at || to <= from) continue;
		kept += text.slice(at, from);
		at = to;
	}
	return kept + text.slice(at);
}

/** Of a function what stands between its braces; nothing of one without. */
function insideOf(text: string, [from, to]: Span): Span {
	const source = text.slice(from, to);
	const close = source.lastIndexOf('}');
	// After its parameters, which may hold braces of their own.
	const open = source.indexOf('{', Math.max(0, endOfParameters(source)));
	return open >= 0 && close > open ? [from + open + 1, from + close] : [from, from];
}

function endOfParameters(source: string): number {
	let depth = 0;
	const first = source.indexOf('(');
	if (first < 0) return -1;
	for (let i = first; i < source.length; i++) {
		if (source[i] === '(') depth++;
		if (source[i] === ')' && --depth === 0) return i;
	}
	return -1;
}

/** Helpers of compilers for browsers without classes, generators or iterators (house list, from their sources). */
const HELPERS = [
	'_classCallCheck',
	'_createClass',
	'_inherits',
	'_inheritsLoose',
	'_possibleConstructorReturn',
	'_toConsumableArray',
	'_slicedToArray',
	'_asyncToGenerator',
	'_objectSpread',
	'regeneratorRuntime',
	'__awaiter',
	'__generator',
	'__extends',
	'__spreadArray',
	'__values'
] as const;

export const helpersIn = (text: string): string[] =>
	HELPERS.filter((name) => new RegExp(`(^|[^\\w$])${name}(?![\\w$])`).test(text));

/** Whether it writes into the document outside what never ran. */
export const writesDocument = (text: string, unused: readonly Span[]): boolean =>
	[...text.matchAll(/\bdocument\.write(ln)?\s*\(/g)].some(
		({ index }) => !unused.some(([from, to]) => index >= from && index < to)
	);
