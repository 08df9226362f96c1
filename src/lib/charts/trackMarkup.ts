/** What stands on the axis of a shift board, as SVG. Markup, and not elements one by one: a list has hundreds. */
import type { BoardMark } from '$core/trial/judge/board';
import { MARGIN_BAND, placeMark, type PlacedMark } from './shiftBoardLayout';

const percent = (share: number) => `${(share * 100).toFixed(2)}%`;

/** @param mark null draws the axis alone @param height in CSS pixels */
export function trackMarkup(mark: Omit<BoardMark, 'metric'> | null, height: number): string {
	const { from, to } = MARGIN_BAND;
	const axis =
		`<rect class="band" x="${percent(from)}" width="${percent(to - from)}" y="0" height="${height}"></rect>` +
		`<line class="zero" x1="50%" x2="50%" y1="0" y2="${height}"></line>`;
	const placed = mark && placeMark(mark);
	return placed ? axis + markMarkup(placed, height) : axis;
}

function markMarkup({ tone, bar, isDotted, isSolid, leaves, at }: PlacedMark, height: number): string {
	const middle = height / 2;
	const size = Math.min(6, height / 3);
	const placedAt = (x: string, path: string) => `<svg x="${x}" y="${middle}" overflow="visible">${path}</svg>`;
	return [
		`<g class="${tone}">`,
		bar &&
			`<line class="${isDotted ? 'bar dotted' : 'bar'}" x1="${percent(bar.from)}" x2="${percent(bar.to)}" y1="${middle}" y2="${middle}"></line>`,
		leaves.left && placedAt('0', '<path d="M0,0l6,-4v8z"></path>'),
		leaves.right && placedAt('100%', '<path d="M0,0l-6,-4v8z"></path>'),
		placedAt(
			percent(at),
			`<path class="${isSolid ? 'diamond' : 'diamond hollow'}" d="M${-size},0L0,${-size}L${size},0L0,${size}Z"></path>`
		),
		'</g>'
	]
		.filter(Boolean)
		.join('');
}
