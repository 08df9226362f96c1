import { expect } from 'chai';
import BusyBand from '$lib/charts/BusyBand.svelte';
import CalmDay from '$lib/charts/CalmDay.svelte';
import EstimationPlot from '$lib/charts/EstimationPlot.svelte';
import FieldHistogram from '$lib/charts/FieldHistogram.svelte';
import MainThread from '$lib/charts/MainThread.svelte';
import SharesBar from '$lib/charts/SharesBar.svelte';
import SignedBars from '$lib/charts/SignedBars.svelte';
import SpeedDots from '$lib/charts/SpeedDots.svelte';
import TrendLine from '$lib/charts/TrendLine.svelte';
import Windows from '$lib/charts/Windows.svelte';
import { resultOf } from '../support/results';
import { show as render, type Shown } from '../support/svelte/show';

const show = (component: unknown, props: object): Promise<Shown> => render(component as never, props as never);
const numberOf = (shown: Shown, name: string) => Number(shown.attribute(name));
const ms = (value: number) => `${value} ms`;
const day = (iso: string) => `the ${Number(iso.slice(8, 10))}th`;

describe('what visitors had', () => {
	it('is a bar of three shares that fill it, told in words', async () => {
		const shown = await show(SharesBar, { name: 'LCP', shares: [0.6, 0.3, 0.1] });
		expect(shown.the('svg').attribute('aria-label')).to.equal('LCP: good 60 %, needs improvement 30 %, poor 10 %');
		const bars = shown.all('rect').map((bar) => [numberOf(bar, 'x'), numberOf(bar, 'width')]);
		expect(bars.map((pair) => pair.map((value) => Math.round(value)))).to.deep.equal([
			[0, 60],
			[60, 30],
			[90, 10]
		]);
	});

	it('is a histogram whose bars say their band, with the 75th percentile', async () => {
		const shown = await show(FieldHistogram, {
			name: 'lcp',
			caption: 'Largest paint',
			bins: [
				[1000, 0.5],
				[2000, 0.3],
				[3000, 0.15],
				[5000, 0.05]
			],
			p75: 2100,
			thresholds: { good: 2500, poor: 4000 },
			format: ms
		});
		expect(shown.has('svg[aria-label=Largest paint]')).to.equal(true);
		expect(shown.texts('text')).to.deep.equal(['p75 2100 ms', 'good up to 2500 ms']);
		const heights = shown.all('rect').map((bar) => numberOf(bar, 'height'));
		expect(heights.filter((height) => height === Math.max(...heights))).to.have.length(1);
		const line = shown.the('line.p75');
		expect(numberOf(line, 'x1')).to.be.above(0).and.equal(numberOf(line, 'x2'));
	});

	it('are windows that overlap, each a stroke over its days', async () => {
		const windows = [7, 14].map((end) => ({
			from: `2026-01-0${end === 7 ? 1 : 8}`,
			until: `2026-02-${String(end).padStart(2, '0')}`,
			value: end * 100
		}));
		const shown = await show(Windows, {
			name: 'lcp',
			caption: 'Largest paint',
			windows,
			thresholds: null,
			format: ms,
			dayWords: day,
			markers: [{ id: 1, day: '2026-01-20', words: 'A release' }]
		});
		expect(shown.all('g[role=img]').map((mark) => mark.attribute('aria-label'))).to.deep.equal([
			'the 1th to the 7th: 700 ms',
			'the 8th to the 14th: 1400 ms',
			'the 20th: A release'
		]);
		const [first, second] = shown.all('line.window').map((line) => [numberOf(line, 'x1'), numberOf(line, 'x2')]) as [
			number[],
			number[]
		];
		// They share days: the second begins before the first ends.
		expect(second[0]).to.be.below(first[1]!).and.above(first[0]!);
	});

	it('have a trend in steps, and none of one window', async () => {
		const points = [3000, 2000].map((p75, i) => ({ until: `2026-01-0${i + 1}`, p75 }));
		const shown = await show(TrendLine, { name: 'LCP', points, format: ms });
		expect(shown.the('svg').attribute('aria-label')).to.equal('LCP: 2 windows, 3000 ms at first, 2000 ms now');
		// Two strokes of 55 px each: from 3000 (1800 to 3300 on 22 px: 4.4 from the top) down to 2000 (19.1).
		expect(shown.the('path').attribute('d')).to.equal('M0 4.4H55.0V19.1H110.0');
		expect((await show(TrendLine, { name: 'LCP', points: points.slice(1), format: ms })).text).to.equal('–');
	});
});

describe('the machine', () => {
	it('is a day in hours: share of others, loads, and those that were disturbed', async () => {
		const hours = Array.from({ length: 24 }, (_, i) => ({
			hour: `2026-01-01T${String(i).padStart(2, '0')}`,
			loads: i === 3 ? 8 : 0,
			disturbed: i === 3 ? 2 : 0,
			share: i === 3 ? 0.25 : null
		}));
		const shown = await show(CalmDay, { hours });
		expect(shown.the('svg').attribute('aria-label')).to.match(/^\d+ to \d+ h: 25 % to others; 2 of 8 loads disturbed$/);
		const [bar, ...others] = shown.all('rect').filter((item) => !item.attribute('class')?.includes('hit'));
		expect(others).to.have.length(0);
		// A quarter of what is drawn up to a half: half of the 76 px between 8 and 84.
		expect(numberOf(bar!, 'height')).to.be.closeTo(38, 1e-9);
		expect(bar!.attribute('class')).to.include('high');
		const empty = await show(CalmDay, {
			hours: hours.map((hour) => ({ ...hour, share: null, loads: 0, disturbed: 0 }))
		});
		expect(empty.the('svg').attribute('aria-label')).to.equal('Nothing watched in the last day');
	});

	it('is a band beside a load: high where more than a third was taken', async () => {
		const track = {
			endsMs: [100, 200, 300],
			busyMs: [100, 100, 100],
			stolenMs: [0, 0, 0],
			foreignMs: [0, 20, 60],
			pressureMs: null
		};
		const calm = { track, share: 0.27, burst: 0.4, disturbed: true, waitedMs: 0, gaveUp: false, frequencyMhz: null };
		const shown = await show(BusyBand, {
			calm,
			words: 'Busy.',
			endMs: 500 / 1.02
		});
		const [low, high] = shown.all('path').map((path) => path.attribute('d')!) as [string, string];
		// Of 1,000 units for 500 ms: 20 % of 10 px from 200 to 400; 60 % of it from 400 to 600.
		expect(low).to.equal('M200.0 14.0v-2.0h200.0v2.0z');
		expect(high).to.equal('M400.0 14.0v-6.0h200.0v6.0z');
	});

	it('has its speed as a dot a load, with the middle', async () => {
		const speeds = [90, 100, 110].map((speed, i) => ({ at: `2026-01-01T0${i}:00:00Z`, speed }));
		const shown = await show(SpeedDots, { speeds, usual: 100 });
		const dots = shown.all('circle[r=2.2]');
		expect(dots).to.have.length(3);
		const usual = shown.the('line.usual');
		expect(numberOf(dots[1]!, 'cy')).to.equal(numberOf(usual, 'y1'));
		expect(shown.the('figcaption').text).to.include('each of the last 3 loads');
	});
});

describe('what a load or a shift is made of', () => {
	it('is bars from a common middle: half of the track for the largest', async () => {
		const shown = await show(SignedBars, {
			rows: [
				{ name: 'chat', shift: 200 },
				{ name: 'own', shift: -50 }
			],
			valueOf: ms
		});
		expect(shown.rows()).to.deep.equal([
			['chat', '200 ms', ''],
			['own', '-50 ms', '']
		]);
		expect(
			shown.all('span').map((bar) => [bar.attribute('style'), bar.attribute('class')?.includes('less') ?? false])
		).to.deep.equal([
			['width: 50%;', false],
			['width: 12.5%;', true]
		]);
	});

	it('is long tasks by whose scripts ran, with a table of owners', async () => {
		const owner = { id: 'chat.test', name: 'chat.test', kind: 'third-party' as const };
		const tasks = [
			{
				startMs: 300,
				durationMs: 120,
				blockingMs: 70,
				shares: [{ owner, url: 'https://chat.test/a.js', durationMs: 120 }]
			}
		];
		const times = [{ owner, durationMs: 120, blockingMs: 70, tasks: 1 }];
		const shown = await show(MainThread, {
			tasks,
			times,
			endMs: 1000,
			lines: [{ name: 'FCP', atMs: 300 }],
			colours: () => 'teal'
		});
		expect(shown.the('svg').attribute('aria-label')).to.equal('1 long tasks over time, coloured by whose scripts ran');
		expect(shown.rows()).to.deep.equal([
			['Owner of the script', 'In long tasks', 'Of it blocking', 'Tasks'],
			['chat.test, third party', '120 ms', '70 ms', '1']
		]);
		expect(shown.the('figcaption').text).to.match(/^1 task of more than 50 ms; 70 ms of their time counts as blocking/);
	});

	it('is a dot for every load and the shift of each variant beside them', async () => {
		const arms = [
			{ id: 1, name: 'Without chat', baseline: true },
			{ id: 2, name: 'With chat', baseline: false }
		];
		const dots = [1, 2].flatMap((arm) =>
			[1, 2, 3].map((round) => ({
				load: arm * 10 + round,
				arm,
				round,
				value: 1000 * arm + round,
				outlying: arm === 2 && round === 3
			}))
		);
		const shown = await show(EstimationPlot, {
			metric: 'lcp',
			title: 'Phone',
			arms,
			dots,
			results: [resultOf('lcp', 'worse', [1000, 900, 1100])]
		});
		expect(shown.all('a').map((link) => link.attribute('href'))).to.deep.equal(
			[11, 12, 13, 21, 22, 23].map((load) => `/loads/${load}`)
		);
		expect(shown.all('circle.ring')).to.have.length(1);
		const heights = shown.all('a').map((link) => numberOf(link.the('circle'), 'cy'));
		// Higher is slower, within an arm too.
		expect(heights[0]).to.be.above(heights[2]!);
		expect(heights[2]).to.be.above(heights[3]!);
	});
});
