/** Fonts made smaller: re-packed, and with the drawn signs alone. */
import { create } from 'fontkit';
import subsetFont from 'subset-font';
import type { FontFacts } from '$core/findings/bodyFacts';

/** Private use areas (Unicode 23.5). */
const isPrivate = (code: number) =>
	(code >= 0xe000 && code <= 0xf8ff) || (code >= 0xf0000 && code <= 0xffffd) || code >= 0x100000;

/**
 * @param families names under which style sheets give the file; the font's own where none does
 * @param drawn signs that the audited pages draw, by family in small letters
 * @throws Error for a font that cannot be read
 */
export async function fontFacts(
	bytes: Buffer,
	families: readonly string[],
	drawn: ReadonlyMap<string, ReadonlySet<string>>
): Promise<FontFacts> {
	const font = create(bytes);
	if (!('characterSet' in font)) throw new Error('It is a collection of fonts.');
	const own = new Set(font.characterSet);
	const names = families.length ? families : [font.familyName];
	const asked = new Set(names.flatMap((name) => [...(drawn.get(name.toLowerCase()) ?? [])]));
	const codes = [...asked].map((sign) => sign.codePointAt(0)!).filter((code) => own.has(code));
	const text = String.fromCodePoint(...codes);
	const whole = String.fromCodePoint(...own);
	return {
		family: names[0] ?? '',
		isDrawn: codes.length > 0,
		signs: own.size,
		drawnSigns: codes.length,
		isIcons: codes.length > 0 && codes.every(isPrivate),
		woff2: await sizeOf(bytes, whole),
		subset: codes.length ? await sizeOf(bytes, text) : null
	};
}

async function sizeOf(bytes: Buffer, text: string): Promise<number | null> {
	try {
		return (await subsetFont(bytes, text, { targetFormat: 'woff2' })).length;
	} catch {
		return null;
	}
}

/** As WOFF2 with some signs alone. @returns null where it cannot be read */
export const subsetOf = (bytes: Buffer, signs: string): Promise<Buffer | null> =>
	subsetFont(bytes, signs, { targetFormat: 'woff2' }).then(
		(made) => Buffer.from(made),
		() => null
	);
