/** A shift board as a table of values and as a drawing that stands on its own. */
import { csvText } from './csvText';
import type { BoardRow } from '$core/wording/board';
import { MARGIN_BAND, placeMark } from './shiftBoardLayout';

export function boardCsv(rows: readonly BoardRow[], baseline: string, arm: string): Promise<string> {
	return csvText(
		['metric', baseline, arm, 'estimate_in_margins', 'low_in_margins', 'high_in_margins', 'verdict'],
		rows.map(({ name, baseline: before, arm: after, inMargins, verdict }) => [
			name,
			before,
			after,
			inMargins?.estimate ?? null,
			inMargins?.low ?? null,
			inMargins?.high ?? null,
			verdict
		])
	);
}

export interface BoardNames {
	title: string;
	baseline: string;
	arm: string;
}

/** Colours of the light theme: a copy goes onto other people's paper. */
const INK = { better: '#0B6E8A', worse: '#8A2E4F', quiet: '#6B6B6B', open: '#6B6B6B' };
const WIDTH = 960;
const AXIS = { from: 420, width: 320 };
const ROW = 30;
const HEAD = 64;

const escaped = (text: string) => text.replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);

function words(text: string, x: number, y: number, options: { end?: boolean; bold?: boolean; colour?: string } = {}) {
	const anchor = options.end ? ' text-anchor="end"' : '';
	const weight = options.bold ? ' font-weight="600"' : '';
	return `<text x="${x}" y="${y}" fill="${options.colour ?? '#1D2B26'}"${anchor}${weight}>${escaped(text)}</text>`;
}

export function boardSvg(rows: readonly BoardRow[], { title, baseline, arm }: BoardNames): string {
	const height = HEAD + rows.length * ROW + 12;
	const x = (share: number) => AXIS.from + share * AXIS.width;
	const bandWidth = (MARGIN_BAND.to - MARGIN_BAND.from) * AXIS.width;
	const rowsHeight = rows.length * ROW;
	const band = `<rect x="${x(MARGIN_BAND.from)}" y="${HEAD}" width="${bandWidth}" height="${rowsHeight}" fill="#EFE9D8"/>`;
	const zero = `<path d="M${x(0.5)},${HEAD}v${rowsHeight}" stroke="#A9A596" stroke-width="1.5"/>`;
	const heads = [
		words(title, 12, 22, { bold: true }),
		words(baseline, 280, 52, { end: true }),
		words(arm, 390, 52, { end: true, colour: '#C4621A' }),
		words('better', x(0), 52),
		words('worse', x(1), 52, { end: true })
	];
	const body = rows.map((row, i) => rowSvg(row, HEAD + i * ROW + ROW / 2, x));
	const content = [...heads, band, zero, ...body].join('');
	const size = `width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}"`;
	const paper = '<rect width="100%" height="100%" fill="#fff"/>';
	const head = `<svg xmlns="http://www.w3.org/2000/svg" ${size} font-family="sans-serif" font-size="14">`;
	return `${head}${paper}${content}</svg>`;
}

function rowSvg(row: BoardRow, y: number, x: (share: number) => number): string {
	const placed = placeMark(row);
	const colour = placed ? INK[placed.tone] : INK.open;
	const texts = [
		words(row.name, 12, y + 5, { bold: true }),
		words(row.baseline, 280, y + 5, { end: true }),
		words(row.arm, 390, y + 5, { end: true }),
		words(row.word, AXIS.from + AXIS.width + 20, y + 5, { colour, bold: placed?.isSolid })
	];
	if (!placed) return texts.join('');
	const dashes = placed.isDotted ? ' stroke-dasharray="3 3"' : '';
	const bar = placed.bar
		? `<path d="M${x(placed.bar.from)},${y}H${x(placed.bar.to)}" stroke="${colour}" stroke-width="3.5"${dashes}/>`
		: '';
	const fill = placed.isSolid ? colour : '#fff';
	const shape = `M${x(placed.at) - 6},${y}l6,-6l6,6l-6,6z`;
	const diamond = `<path d="${shape}" fill="${fill}" stroke="${colour}" stroke-width="2"/>`;
	return [...texts, bar, diamond].join('');
}
