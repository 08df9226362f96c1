import { expect } from 'chai';
import type { BoardRow } from '$core/wording/board';
import type { Film } from '$core/compare/film';
import FramesInStep from '$lib/charts/FramesInStep.svelte';
import History from '$lib/charts/History.svelte';
import Lines from '$lib/charts/Lines.svelte';
import Moments from '$lib/charts/Moments.svelte';
import PlaybackInStep from '$lib/charts/PlaybackInStep.svelte';
import ShiftBoard from '$lib/charts/ShiftBoard.svelte';
import ShiftMatrix from '$lib/charts/ShiftMatrix.svelte';
import ShiftStrip from '$lib/charts/ShiftStrip.svelte';
import { show as render, type Shown } from '../support/svelte/show';

const show = (component: unknown, props: object): Promise<Shown> => render(component as never, props as never);
const numberOf = (shown: Shown, name: string) => Number(shown.attribute(name));
const ms = (value: number) => `${value} ms`;
const day = (iso: string) => `the ${Number(iso.slice(8, 10))}th`;

const row = (candidate: Partial<BoardRow> = {}): BoardRow => ({
	metric: 'lcp',
	name: 'Largest paint',
	verdict: 'better',
	inMargins: { estimate: -2, low: -3, high: -1 },
	isExact: false,
	baseline: '2.0 s',
	arm: '1.8 s',
	word: 'faster',
	ranges: { baseline: '', arm: '' },
	text: 'LCP: faster, 200 ms less.',
	...candidate
});

describe('the shift board', () => {
	const board = (extra: object) =>
		show(ShiftBoard, { label: 'B, Phone', rows: [], baseline: 'A', arm: 'B', colour: 'teal', ...extra });

	it('has a row for each metric: both figures, its mark, its word, and the sentence for who cannot see the mark', async () => {
		const shown = await board({
			rows: [
				row(),
				row({
					metric: 'cls',
					name: 'Layout shift',
					verdict: 'same',
					word: 'no difference that matters',
					text: 'CLS: none.'
				})
			]
		});
		expect(shown.the('table').attribute('aria-label')).to.equal('B, Phone');
		expect(shown.rows().slice(1)).to.deep.equal([
			['Largest paint', '2.0 s', '1.8 s', '', 'faster. LCP: faster, 200 ms less.'],
			['Layout shift', '2.0 s', '1.8 s', '', 'no difference that matters. CLS: none.']
		]);
		expect(shown.all('.track')).to.have.length(2);
		expect(shown.all('td.word').map((cell) => cell.attribute('class'))).to.satisfy(
			(all: string[]) => all[0]!.includes('better') && all[1]!.includes('same')
		);
		expect(shown.has('.bx--overflow-menu')).to.equal(true);
	});

	it('names what it waits for before the first look, with an axis and no mark', async () => {
		const shown = await board({ awaited: ['Score', 'Bytes'] });
		expect(shown.rows().slice(1)).to.deep.equal([
			['Score', '', 'not yet'],
			['Bytes', '', 'not yet']
		]);
		expect(shown.has('.bx--overflow-menu')).to.equal(false);
	});

	it('leaves figures out where a mean of shares has none, and leads to the evidence of a row', async () => {
		const shown = await board({
			rows: [row({ baseline: '', arm: '' })],
			evidence: (metric: string) => `#loads-${metric}`
		});
		expect(shown.rows()[1]).to.deep.equal(['Largest paint', '', 'faster. LCP: faster, 200 ms less.']);
		expect(shown.the('td.word').the('a').attribute('href')).to.equal('#loads-lcp');
	});

	it('never colours a gain that comes back later', async () => {
		const shown = await board({ rows: [row({ isPutOff: true, word: 'comes back later' })] });
		expect(shown.the('td.word').attribute('class')).to.include('same').and.not.include('better');
	});

	it('may have ages for rows', async () => {
		const ages = ['at first', '1 day later'].map((name) => row({ name }));
		const shown = await board({ rows: ages, rowHead: 'Age' });
		expect(shown.rows().map(([first]) => first)).to.deep.equal(['Age', 'at first', '1 day later']);
	});
});

describe('many variants on one axis', () => {
	it('have a column of small boards for each metric, each a link to its loads', async () => {
		const variants = ['Larder', 'Hushbox'].map((name, i) => ({ arm: i + 2, name, colour: 'teal', rows: [row()] }));
		const shown = await show(ShiftMatrix, {
			label: 'All variants',
			variants,
			evidence: (metric: string, arm: number) => `/x?metric=${metric}&arm=${arm}`
		});
		expect(shown.rows()[0]).to.deep.equal(['Variant', 'Largest paint']);
		expect(shown.rows()[1]![1]).to.equal('1.8 s faster. Larder: LCP: faster, 200 ms less.');
		expect(shown.all('a').map((link) => link.attribute('href'))).to.deep.equal([
			'/x?metric=lcp&arm=2',
			'/x?metric=lcp&arm=3'
		]);
	});

	it('are strips in lists, with a word for each mark', async () => {
		const shown = await show(ShiftStrip, {
			label: 'Larder, Phone',
			marks: [{ ...row(), short: 'LCP', word: 'faster' }]
		});
		expect(shown.the('ul').attribute('aria-label')).to.equal('Larder, Phone');
		expect(shown.texts('li')).to.deep.equal(['LCP: faster']);
	});
});

describe('films on one clock', () => {
	const film = (arm: number, endMs: number, extra: Partial<Film> = {}): Film => ({
		arm,
		load: arm * 10,
		frames: [
			{ atMs: 0, progress: 0 },
			{ atMs: 400, progress: 0.5 },
			{ atMs: endMs, progress: 1 }
		],
		lcpMs: 400,
		shiftsMs: [endMs],
		width: 393,
		height: 851,
		...extra
	});
	const names = { nameOf: (arm: number) => `Variant ${arm}`, colourOf: () => 'teal' };

	it('begin at their end: each shows its finished page, and when it was finished', async () => {
		const shown = await show(PlaybackInStep, { films: [film(1, 900), film(2, 1500)], ...names });
		expect(shown.texts('figcaption')).to.deep.equal([
			'Variant 1 100 % painted, at 900 ms',
			'Variant 2 100 % painted, at 1.50 s'
		]);
		expect(shown.all('img').map((image) => image.attribute('src'))).to.deep.equal([
			'/api/loads/10/frames/3',
			'/api/loads/20/frames/3'
		]);
		expect(shown.texts('button')).to.deep.equal(['Play again']);
		expect(shown.texts('option')).to.deep.equal(['True speed', 'Half speed', 'Quarter speed']);
	});

	it('stand beside each other in equal steps, with a word under the frame in which something came or moved', async () => {
		const shown = await show(FramesInStep, { films: [film(1, 900), film(2, 1500)], ...names });
		// 1.5 s in at most ten columns: steps of 200 ms, from 0 to 1.6 s.
		const [head, first, second] = shown.rows();
		expect(head).to.deep.equal([
			'Variant',
			'0 ms',
			'200 ms',
			'400 ms',
			'600 ms',
			'800 ms',
			'1.00 s',
			'1.20 s',
			'1.40 s',
			'1.60 s'
		]);
		expect(first!.slice(1)).to.deep.equal(['', '', 'LCP', '', '', 'shift', '', '', '']);
		expect(second!.slice(1)).to.deep.equal(['', '', 'LCP', '', '', '', '', '', 'shift']);
		const firstRow = shown.all('tbody')[0]!.all('tr')[0]!;
		expect(firstRow.all('img').map((image) => image.attribute('src')!.split('/').at(-1))).to.deep.equal([
			'1',
			'1',
			'2',
			'2',
			'2',
			'3',
			'3',
			'3',
			'3'
		]);
		expect(firstRow.all('img')[2]!.attribute('alt')).to.equal('Variant 1 after 400 ms, 50 % painted');
	});

	it('are looked at together at three moments', async () => {
		const shown = await show(Moments, {
			label: 'Frames',
			moments: [
				{ kind: 'first-paint', atMs: 400, arm: 1 },
				{ kind: 'all-finished', atMs: 1500, arm: 2 }
			],
			arms: [1, 2].map((arm) => ({ arm, load: arm * 10, width: 393, height: 851, frames: [2, 3] })),
			...names
		});
		expect(shown.all('img')).to.have.length(4);
		for (const image of shown.all('img')) expect(image.attribute('alt')).to.match(/^Variant [12]/);
	});
});

describe('a history over time', () => {
	const points = [1000, 1100, 900].map((middle, i) => ({
		at: `2026-01-${String(i * 10 + 1).padStart(2, '0')}T00:00:00Z`,
		middle,
		low: middle - 50,
		high: middle + 50,
		loads: 5,
		disturbed: i === 1 ? 2 : 0,
		isWild: i === 1
	}));
	const history = (extra: object = {}) =>
		show(History, {
			name: 'lcp',
			caption: 'Largest paint',
			points,
			steps: [],
			breaks: [],
			markers: [],
			thresholds: { good: 2500, poor: 4000 },
			format: ms,
			dayWords: day,
			...extra
		});

	it('tells each reading with its spread, how many loads it had, and what to doubt', async () => {
		const told = (await history()).all('g[role=img]').map((mark) => mark.attribute('aria-label'));
		expect(told).to.deep.equal([
			'the 1th: 1000 ms, 5 loads from 950 ms to 1050 ms',
			'the 11th: 1100 ms, 5 loads from 1050 ms to 1150 ms, far from its neighbours, 2 on a busy machine',
			'the 21th: 900 ms, 5 loads from 850 ms to 950 ms'
		]);
	});

	it('draws no line over a change of the lab, flags what was released, and shows a step with its words', async () => {
		const shown = await history({
			breaks: [{ at: points[2]!.at, title: 'The browser changed' }],
			markers: [
				{ day: '2026-01-05', words: 'A chat' },
				{ day: '2026-01-05', words: 'A chat' },
				{ day: '2027-01-01', words: 'Later' }
			],
			steps: [{ at: points[1]!.at, from: 1000, to: 1100, verdict: 'worse', words: '100 ms more' }]
		});
		const labels = shown.all('g[role=img]').map((mark) => mark.attribute('aria-label'));
		expect(labels).to.include.members(['the 21th: The browser changed', 'the 5th: A chat', '100 ms more']);
		expect(labels.filter((label) => label === 'the 5th: A chat')).to.have.length(2);
		expect(labels).not.to.include('the 1th: Later');
		expect(shown.all('path.line')).to.have.length(2);
		expect(shown.all('path.step.worse')).to.have.length(1);
	});

	it('of several pages names each line at its end, and keeps names apart', async () => {
		const line = (name: string, value: number) => ({
			name,
			colour: 'teal',
			points: points.map(({ at }) => ({ at, value }))
		});
		const shown = await show(Lines, {
			name: 'lcp',
			caption: 'Largest paint',
			// Two pages of one site have one name.
			lines: [line('Own', 1000), line('Own', 1001), line('Other', 400)],
			markers: [],
			format: ms,
			dayWords: day
		});
		const ends = shown.all('text').filter(({ text }) => /, \d+ ms$/.test(text));
		expect(ends.map(({ text }) => text).sort()).to.deep.equal(['Other, 400 ms', 'Own, 1000 ms', 'Own, 1001 ms']);
		const heights = ends.map((end) => numberOf(end, 'y')).sort((a, b) => a - b);
		for (let i = 1; i < heights.length; i++) expect(heights[i]! - heights[i - 1]!).to.be.at.least(15);
	});
});
