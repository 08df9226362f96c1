import { expect } from 'chai';
import fc from 'fast-check';
import { boardMark } from '$core/trial/judge/board';
import { boardRow } from '$core/wording/board';
import { trackMarkup } from '../../src/lib/charts/trackMarkup';
import { bySize, MARGIN_BAND, placeMark, placeOf, REACH } from '../../src/lib/charts/shiftBoardLayout';
import { boardCsv, boardSvg } from '../../src/lib/charts/shiftBoardCopies';
import { resultOf } from '../support/results';

describe('axis of the shift board', () => {
	it('is linear within the margin and logarithmic beyond, to twenty margins', () => {
		// The margin takes 34 % of each half: 0.5 + 0.34 / 2.
		expect(placeOf(0)).to.equal(0.5);
		expect(placeOf(1)).to.be.closeTo(0.67, 1e-12);
		expect(placeOf(0.5)).to.be.closeTo(0.585, 1e-12);
		expect(placeOf(-1)).to.be.closeTo(0.33, 1e-12);
		// The square root of twenty stands halfway between the margin and the end: 0.67 + 0.33 / 2.
		expect(placeOf(Math.sqrt(20))).to.be.closeTo(0.835, 1e-12);
		expect(placeOf(REACH)).to.equal(1);
		expect(placeOf(-500)).to.equal(0);
		expect(MARGIN_BAND.from).to.be.closeTo(0.33, 1e-12);
	});

	it('keeps the order of shifts and mirrors them', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -30, max: 30, noNaN: true }),
				fc.double({ min: -30, max: 30, noNaN: true }),
				(a, b) => {
					if (a <= b) expect(placeOf(a)).to.be.at.most(placeOf(b) + 1e-12);
					expect(placeOf(a) + placeOf(-a)).to.be.closeTo(1, 1e-12);
				}
			)
		);
	});

	it('draws what is decided solid, what is not dotted, what is exact without a bar', () => {
		const worse = placeMark(boardMark(resultOf('lcp', 'worse', [400, 200, 3000])))!;
		expect([worse.isSolid, worse.isDotted, worse.tone]).to.deep.equal([true, false, 'worse']);
		expect(worse.bar!.from).to.be.below(worse.at);
		expect(worse.leaves).to.deep.equal({ left: false, right: true });
		const open = placeMark(boardMark(resultOf('lcp', 'undecided', [0, -90, 90])))!;
		expect([open.isSolid, open.isDotted, open.tone, open.at]).to.deep.equal([false, true, 'open', 0.5]);
		const late = placeMark({ ...boardMark(resultOf('tbt', 'better', [-300, -400, -200])), isPutOff: true })!;
		expect(late, 'a gain that comes back').to.include({ isSolid: false, isDotted: false, tone: 'quiet' });
		const exact = placeMark(boardMark(resultOf('wire', 'better', [-40_000, -40_000, -40_000])))!;
		expect([exact.bar, exact.isSolid]).to.deep.equal([null, true]);
		const slight = placeMark(boardMark(resultOf('tbt', 'slight', [70, 20, 130])))!;
		expect([slight.isSolid, slight.isDotted, slight.tone]).to.deep.equal([false, false, 'quiet']);
		expect(placeMark(boardMark(resultOf('lcp', 'none', [0, 0, 0], { shift: null })))).to.equal(null);
	});

	it('sorts variants from better to worse, the unknown last', () => {
		const marks = [
			boardMark(resultOf('lcp', 'worse', [300, 200, 400])),
			undefined,
			boardMark(resultOf('lcp', 'better', [-300, -400, -200]))
		];
		expect([...marks].sort(bySize).map((mark) => mark?.verdict)).to.deep.equal(['better', 'worse', undefined]);
	});
});

describe('copies of the shift board', () => {
	const rows = [boardRow(resultOf('lcp', 'worse', [250, 150, 400]), { arm: 'B', baseline: 'A' })];

	it('holds the values as CSV', async () => {
		expect((await boardCsv(rows, 'A', 'B')).trim().split(/\r?\n/)).to.deep.equal([
			'metric,A,B,estimate_in_margins,low_in_margins,high_in_margins,verdict',
			'Largest paint,1.00\u00a0s,1.25\u00a0s,2.5,1.5,4,worse'
		]);
	});

	it('draws an SVG that stands alone and shows markup in names as text', () => {
		const svg = boardSvg(rows, { title: 'Is <b>it</b>?', baseline: 'A & C', arm: 'B' });
		expect(svg).to.match(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg"/);
		expect(svg).to.not.match(/<b>|var\(/);
		expect(svg).to.include('&#60;b&#62;');
		expect(svg).to.include('slower');
	});
});

describe('marks as SVG', () => {
	const worse = boardMark(resultOf('lcp', 'worse', [400, 200, 3000]));

	it('stand where the layout puts them', () => {
		const markup = trackMarkup(worse, 24);
		const placed = placeMark(worse)!;
		expect(markup).to.contain('<rect class="band" x="33.00%" width="34.00%" y="0" height="24">');
		expect(markup).to.contain('<line class="zero" x1="50%" x2="50%" y1="0" y2="24">');
		expect(markup).to.contain(`<svg x="${(placed.at * 100).toFixed(2)}%" y="12" overflow="visible">`);
		// Half a diamond is a quarter of 24 px, at most 6.
		expect(markup).to.contain('<path class="diamond" d="M-6,0L0,-6L6,0L0,6Z">');
		expect(markup).to.match(/^<rect.*<g class="worse">.*<\/g>$/);
	});

	it('are hollow and dotted where nothing is decided', () => {
		const markup = trackMarkup(boardMark(resultOf('lcp', 'undecided', [0, -90, 90])), 12);
		expect(markup).to.contain('class="bar dotted"').and.to.contain('class="diamond hollow"');
	});

	it('are the axis alone without a shift', () => {
		expect(trackMarkup(null, 16)).to.not.contain('<g');
		expect(trackMarkup({ ...worse, inMargins: null }, 16)).to.equal(trackMarkup(null, 16));
	});
});
