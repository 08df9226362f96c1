import { expect } from 'chai';
import { addDays } from '$core/field/windows';
import { seededRandom } from '$core/stats/random';
import { RELEASES, visitsOn, vitalOn } from '../../demo-web/visitors/population';
import { answerPanel } from '../../demo-web/visitors/panel';
import type { Ask } from '../../demo-web/world';

interface Told {
	status: number;
	page?: string;
	origin?: string;
	window: { from: string; until: string };
	metrics: Record<string, { p75: number; bins: { from: number; share: number }[] }>;
	error?: { code: string };
}

function ask(query: Record<string, string>): Told {
	const answer = answerPanel({ path: '/readings', query: new URLSearchParams({ key: 'demo', ...query }) } as Ask)!;
	return { status: answer.status!, ...(JSON.parse(String(answer.body)) as object) } as Told;
}

const TIMETABLE = 'https://skerry-line.test/timetable';

describe('the panel of real visits', () => {
	it('answers for a page or an origin with bins that add up, and the percentile in its bin', () => {
		const page = ask({ page: TIMETABLE, device: 'phone', until: '2026-11-20' });
		expect([page.status, page.page, page.window]).to.deep.equal([
			200,
			TIMETABLE,
			{ from: '2026-10-24', until: '2026-11-20' }
		]);
		for (const { p75, bins } of Object.values(page.metrics)) {
			expect(bins.reduce((sum, { share }) => sum + share, 0)).to.be.closeTo(1, 1e-4);
			let below = 0;
			for (const { from, share } of bins) if (from <= p75) below += share;
			expect(below).to.be.within(0.75, 0.85);
		}
		expect(ask({ origin: 'https://skerry-line.test', device: 'desktop', until: '2026-11-20' }).origin).to.equal(
			'https://skerry-line.test'
		);
	});

	it('says nothing of a page with too few visits, knows its key, its devices and its rate', () => {
		expect(ask({ page: 'https://skerry-line.test/news/dogs', device: 'phone', until: '2026-11-20' })).to.include({
			status: 404
		});
		expect(ask({ page: 'https://skerry-line.test/nothing', device: 'phone', until: '2026-11-20' })).to.include({
			status: 404
		});
		expect(ask({ page: TIMETABLE, device: 'phone', until: '2026-11-20', key: 'other' })).to.include({ status: 403 });
		expect(ask({ page: TIMETABLE, device: 'watch', until: '2026-11-20' })).to.include({ status: 400 });
		expect(ask({ page: TIMETABLE, device: 'phone', until: 'today' })).to.include({ status: 400 });
		let last: Told | null = null;
		for (let i = 0; i < 160 && last?.status !== 429; i++)
			last = ask({ page: 'x', device: 'phone', until: '2026-11-20' });
		expect(last).to.deep.include({ status: 429 });
	});
});

describe('the visitors whose truth is known', () => {
	it('come as often as the site’s own export says, whatever it was written in', () => {
		const monthly = (host: string, path: string) => {
			// Seven days, so that each weekday counts once; a month has 30.4.
			const days = Array.from({ length: 7 }, (_, i) => new Date(Date.UTC(2026, 10, 2 + i)).toISOString().slice(0, 10));
			const week = days.reduce(
				(sum, day) => sum + visitsOn(host, path, 'phone', day) + visitsOn(host, path, 'desktop', day),
				0
			);
			return (week / 7) * 30.4;
		};
		// 38,404 and 2,310 of the same page.
		expect(monthly('skerry-line.test', '/timetable') / 40_714).to.be.closeTo(1, 0.001);
		expect(monthly('skerry-line.test', '/news/dogs') / 297).to.be.closeTo(1, 0.001);
		expect(monthly('pellows-seed-house.test', '/seed') / 11_905).to.be.closeTo(1, 0.001);
		expect(monthly('orrery-hall.test', '/') / 2104).to.be.closeTo(1, 0.001);
	});

	/** Percentile of drawn visits over the days of a window, by the Box-Muller transform. */
	function drawn(path: string, device: 'phone' | 'desktop', vital: 'lcp' | 'inp', days: string[]): number {
		const random = seededRandom(4);
		const values: number[] = [];
		for (const day of days) {
			const [middle, spread] = vitalOn('skerry-line.test', { path, device, vital, day });
			const visits = Math.round(visitsOn('skerry-line.test', path, device, day) * 2);
			for (let i = 0; i < visits; i++)
				values.push(
					middle * Math.exp(spread * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()))
				);
		}
		values.sort((a, b) => a - b);
		return values[Math.floor(0.75 * values.length)]!;
	}

	it('have a release that acts from its day on, on its pages, by its factor', () => {
		const [release] = RELEASES;
		const at = (day: string, path: string) =>
			Math.log(vitalOn(release!.host, { path, device: 'phone', vital: 'lcp', day })[0]);
		/** Every day has luck of its own: four weeks on each side, on the log scale. */
		const step = (path: string) => {
			const days = (from: number) => Array.from({ length: 28 }, (_, i) => addDays('2026-09-14', from + i));
			const mean = (from: number) => days(from).reduce((sum, day) => sum + at(day, path), 0) / 28;
			return mean(0) - mean(-28);
		};
		// Of two pages over the same days: what all visitors had falls away.
		expect(Math.exp(step('/') - step('/contact'))).to.be.closeTo(0.86, 0.02);
		expect(Math.exp(step('/booking') - step('/contact'))).to.be.closeTo(1, 0.02);
	});

	it('show it in windows as a direct simulation of the visits does', () => {
		const days = Array.from({ length: 28 }, (_, i) => new Date(Date.UTC(2026, 9, 5 + i)).toISOString().slice(0, 10));
		const exact = drawn('/timetable', 'phone', 'inp', days);
		// The rate limit of the test before may still hold: the panel itself is asked through a later minute.
		const told = readAnyway({ page: TIMETABLE, device: 'phone', until: days.at(-1)! });
		expect(told.metrics.inp!.p75 / exact).to.be.closeTo(1, 0.015);
	});

	function readAnyway(query: Record<string, string>): Told {
		const real = Date.now;
		Date.now = () => real() + 120_000;
		try {
			return ask(query);
		} finally {
			Date.now = real;
		}
	}
});
