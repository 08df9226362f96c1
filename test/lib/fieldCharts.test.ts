import { expect } from 'chai';
import fc from 'fast-check';
import { barsOf } from '../../src/lib/charts/fieldBars';
import { packTrend, unpackTrend } from '../../src/routes/field/trendText';
import { placeDays, placeWindows } from '../../src/lib/charts/windowsLayout';

const LCP = { good: 2500, poor: 4000 };

describe('histogram of visits', () => {
	it('deals a bin evenly over the bars it lies in', () => {
		// The drawn end is 4000 (where 97 % lie is the last bin's beginning, 1000 x 1.1; 2500 x 1.1; 1.2 x 3333.4):
		// a bar is 100 wide. The first bin covers ten bars, the second the eleventh alone.
		const { bars, p75, good } = barsOf(
			[
				[0, 0.5],
				[1000, 0.5]
			],
			4000 / 1.2,
			LCP
		);
		expect(bars).to.have.length(40);
		expect(bars[10]!.height).to.equal(1);
		for (const bar of bars.slice(0, 10)) expect(bar.height).to.be.closeTo(0.1, 1e-9);
		for (const bar of bars.slice(11)) expect(bar.height).to.equal(0);
		expect(p75).to.be.closeTo(1 / 1.2, 1e-9);
		expect(good).to.be.closeTo(0.625, 1e-9);
	});

	it('colours each bar by its middle: at the threshold still good', () => {
		const { bars } = barsOf([[0, 1]], 5000 / 1.2, LCP);
		// The end is 5000, a bar 125 wide: 20 bars have their middle up to 2500, 12 from there to 4000.
		const bands = bars.map(({ band }) => band);
		expect(bands.filter((band) => band === 'good')).to.have.length(20);
		expect(bands.filter((band) => band === 'needs')).to.have.length(12);
		expect(bands.filter((band) => band === 'poor')).to.have.length(8);
		expect([...bands].sort((a, b) => order(a) - order(b))).to.deep.equal(bands);
	});

	it('leaves out the far tail, and never the p75 or the threshold', () => {
		const tail: [number, number][] = [
			[0, 0.98],
			[1000, 0.02],
			[60_000, 0]
		];
		const { p75, good } = barsOf(tail, 700, LCP);
		// 98 % lie below 1000: drawn to 2500 x 1.1, not to a minute.
		expect(good).to.be.closeTo(1 / 1.1, 1e-9);
		expect(p75).to.be.closeTo(700 / 2750, 1e-9);
	});

	it('keeps bars within the drawing for any bins', () => {
		const widths = fc.array(fc.tuple(fc.integer({ min: 1, max: 900 }), fc.nat(100)), { minLength: 1, maxLength: 60 });
		fc.assert(
			fc.property(widths, fc.integer({ min: 1, max: 20_000 }), (rows, p75) => {
				const total = rows.reduce((sum, [, n]) => sum + n, 0) || 1;
				let from = 0;
				const bins = rows.map(([width, n]): [number, number] => {
					from += width;
					return [from, n / total];
				});
				const layout = barsOf(bins, p75, LCP);
				for (const { x, width, height } of layout.bars) {
					expect(x + width).to.be.at.most(1 + 1e-9);
					expect(height).to.be.within(0, 1 + 1e-9);
				}
				expect(layout.p75).to.be.within(0, 1);
				expect(layout.good).to.be.within(0, 1);
			})
		);
	});

	const order = (band: string) => ['good', 'needs', 'poor'].indexOf(band);
});

describe('windows of a history', () => {
	const week = (from: string, until: string, value: number) => ({ from, until, value });

	it('are as wide as their days and share what they share', () => {
		// 1 to 28 March and 8 March to 4 April: 35 days in all, 28 each, 7 apart.
		const { placed, top } = placeWindows(
			[week('2026-03-01', '2026-03-28', 3000), week('2026-03-08', '2026-04-04', 1500)],
			[2500, 4000]
		);
		expect(top).to.be.closeTo(3300, 1e-9);
		expect(placed.map(({ x }) => x)).to.deep.equal([0, 7 / 35]);
		expect(placed.map(({ width }) => width)).to.deep.equal([28 / 35, 28 / 35]);
		expect(placed[0]!.y).to.be.closeTo(1 - 3000 / 3300, 1e-9);
		expect(placed[1]!.y).to.be.closeTo(1 - 1500 / 3300, 1e-9);
	});

	it('leave room up to the good threshold where all values lie below', () => {
		const { top } = placeWindows([week('2026-03-01', '2026-03-28', 900)], [2500, 4000]);
		expect(top).to.be.closeTo(2750, 1e-9);
	});

	it('span a change of clocks and of the year in whole days', () => {
		const { placed } = placeWindows([week('2025-12-20', '2026-01-16', 1), week('2026-03-20', '2026-04-16', 1)], []);
		// 20 December to 16 April: 118 days; the second begins 90 days after the first.
		expect(placed[1]!.x).to.be.closeTo(90 / 118, 1e-12);
		expect(placed[1]!.x + placed[1]!.width).to.be.closeTo(1, 1e-12);
	});

	it('of none are none', () => {
		expect(placeWindows([], [2500])).to.deep.equal({ placed: [], top: 1 });
	});
});

describe('days on the axis of windows', () => {
	const windows = [
		{ from: '2026-10-01', until: '2026-10-28', value: 1 },
		{ from: '2026-10-08', until: '2026-11-04', value: 1 }
	];

	it('stand where they lie between the first and the last day', () => {
		// 35 days in all: 14 October is the 14th of them, 13 days after the first.
		const [placed] = placeDays(windows, [{ day: '2026-10-14', words: 'Release' }]);
		expect(placed).to.deep.equal({ day: '2026-10-14', words: 'Release', x: 13 / 35 });
	});

	it('are left out before and after, and where there is no window', () => {
		expect(placeDays(windows, [{ day: '2026-09-30' }, { day: '2026-11-06' }])).to.deep.equal([]);
		expect(placeDays([], [{ day: '2026-10-14' }])).to.deep.equal([]);
	});
});

describe('trends as text', () => {
	it('come out as they went in, empty ones too', () => {
		const points = [
			{ until: '2026-10-28', p75: 2412.5 },
			{ until: '2026-11-04', p75: 0.081 }
		];
		expect(unpackTrend(packTrend(points))).to.deep.equal(points);
		expect(unpackTrend(packTrend([]))).to.deep.equal([]);
	});
});
