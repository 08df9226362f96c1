/** Numbers as exports of other programs write them: 1,234 and 1.234,5, with spaces, currency signs and per cent. */

/** What stands before the decimals. */
export type DecimalMark = '.' | ',';

const NOISE = /[\s\u00a0\u202f'’$€£¥%]|[A-Z]{3}\b/g;
const PLAIN = /^[+-]?[\d.,]*\d[\d.,]*$/;

/**
 * Which mark stands before decimals in a column, from all that its values show: the later of two different marks, or a
 * mark that is not followed by just three digits. A mark that comes twice in a value parts thousands.
 * @param fallback where no value tells
 */
export function decimalMarkOf(values: Iterable<string>, fallback: DecimalMark): DecimalMark {
	for (const value of values) {
		const text = value.replace(NOISE, '');
		const [point, comma] = [text.lastIndexOf('.'), text.lastIndexOf(',')];
		if (point >= 0 && comma >= 0) return point > comma ? '.' : ',';
		const mark = point >= 0 ? '.' : comma >= 0 ? ',' : null;
		if (mark === null) continue;
		const other = mark === '.' ? ',' : '.';
		if (text.indexOf(mark) !== text.lastIndexOf(mark)) return other;
		const after = text.length - 1 - text.lastIndexOf(mark);
		if (after !== 3) return mark;
	}
	return fallback;
}

/** A year of all visits to the web is less (house): beyond it a column holds something else. */
const MOST_AMOUNT = 1e13;

/** @returns null for what is no number, or larger than any that a table means */
export function parseAmount(value: string, mark: DecimalMark): number | null {
	const text = value.replace(NOISE, '');
	if (!PLAIN.test(text)) return null;
	const thousands = mark === '.' ? ',' : '.';
	const plain = text.split(thousands).join('').replace(mark, '.');
	const amount = Number(plain);
	return Math.abs(amount) <= MOST_AMOUNT ? amount : null;
}

/** A count: no decimals in it, so that each mark that three digits follow parts thousands. */
export function parseCount(value: string, mark: DecimalMark): number | null {
	const text = value.replace(NOISE, '');
	if (/^\d{1,3}([.,]\d{3})+$/.test(text)) {
		const count = Number(text.replace(/[.,]/g, ''));
		return count <= MOST_AMOUNT ? count : null;
	}
	return parseAmount(value, mark);
}
