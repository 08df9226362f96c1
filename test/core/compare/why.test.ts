import { expect } from 'chai';
import { explainShift } from '$core/compare/why';
import type { LoadRecord } from '$core/load/record/record';
import { noFigures } from '$core/metrics/catalogue';
import { scoreOf } from '$core/metrics/score';
import { describeCause, toldCauses } from '$core/wording/causes';
import { requestOf } from '../../support/records';
import { chatty, digest, load, plain } from '../../support/digests';

describe('why', () => {
	const why = explainShift([plain(), plain(), plain()], [chatty(), chatty(), chatty()]);
	const of = (metric: string) => why.breakdowns.find((item) => item.metric === metric)!;

	it('breaks every shift down into parts that add up to it', () => {
		for (const breakdown of why.breakdowns) {
			if (breakdown.metric === 'score') continue;
			expect(
				breakdown.parts.reduce((sum, part) => sum + part.shift, 0),
				breakdown.metric
			).to.be.closeTo(breakdown.shift, 1e-6);
		}
		expect(of('wire')).to.include({ before: 94_000, after: 129_000, shift: 35_000 });
		expect(
			of('requests')
				.parts.filter((part) => part.state === 'added')
				.map((part) => part.key)
		).to.have.members(['bell.test/bell.js', 'bell.test/face.png']);
		expect(of('full').parts[0]).to.include({ key: 'bell.test', shift: 1100, state: 'added' });
	});

	it('breaks the score down into what each metric costs, and the costs are what the score lost', () => {
		const scored = (tbt: number) => {
			const figures = { lcp: 1000, tbt, cls: 0, fcp: 500, si: 800, ttfb: 100 };
			return digest(
				load('a.test', [], { figures: { ...figures, score: scoreOf({ ...noFigures(), ...figures }).value } })
			);
		};
		// Worked by hand: TBT of 200 ms is its good anchor (75 of 100 points), 500 ms its poor one (25); it weighs 20 of
		// 100.
		const score = explainShift([scored(200)], [scored(500)]).breakdowns.find((item) => item.metric === 'score')!;
		expect(score.shift).to.be.closeTo(-10, 1e-9);
		expect(score.parts.map((part) => [part.key, Number(part.shift.toFixed(9))])[0]).to.deep.equal(['tbt', -10]);
		expect(score.remainder).to.be.closeTo(0, 1e-9);
	});

	it('names the third party first that came with all of it', () => {
		expect(why.causes[0]).to.include({ subject: 'bell.test' });
		const words = why.causes.map((cause) => describeCause(cause)).join(' ');
		expect(words).to.match(/bell\.test was added: 2 requests and 35\.0.kB more/);
		expect(why.requests).to.deep.equal({ added: 2, gone: 0, changed: 0, alike: 2 });
	});

	it('names compression, images, page cache and CDN', () => {
		const css = (encoding: string | null, wireBytes: number) => ({
			url: 'https://skerry.test/site.css',
			type: 'stylesheet',
			mimeType: 'text/css',
			wireBytes,
			decodedBytes: 60_000,
			endMs: 500,
			responseHeaders: (encoding ? [['content-encoding', encoding]] : []) as [string, string][]
		});
		const first = (before: LoadRecord, after: LoadRecord) => explainShift([digest(before)], [digest(after)]).causes[0];
		expect(first(load('skerry.test', [css('br', 9000)]), load('skerry.test', [css(null, 60_000)]))).to.include({
			subject: 'compression'
		});
		const recoded = first(load('skerry.test', [css('br', 9000)]), load('skerry.test', [css(null, 60_000)]))!;
		expect(describeCause(recoded)).to.match(/^Compression of 1 text file changed from br to none: 51\.0.kB more/);
		const lighter = load('skerry.test');
		lighter.requests[1]!.wireBytes = 20_000;
		expect(first(load('skerry.test'), lighter)).to.include({ subject: 'images' });
		const cached = load('skerry.test', [], { figures: { ttfb: 60, lcp: 860 } });
		cached.requests[0]!.responseHeaders = [['x-cache', 'HIT']];
		const uncached = load('skerry.test');
		uncached.requests[0]!.responseHeaders = [['x-cache', 'MISS']];
		expect(first(uncached, cached)).to.include({ subject: 'page cache' });
		const moved = load('skerry.test', [], { figures: { full: 600 } });
		moved.requests[1] = requestOf({ ...moved.requests[1]!, url: 'https://cdn.skerry.test/big.a1b2c3d4e5.jpg' });
		moved.requests[1]!.host = 'cdn.skerry.test';
		expect(first(load('skerry.test'), moved)).to.include({ subject: 'CDN' });
	});

	it('names the file that came late and where it waited, before bytes that cost no time', () => {
		const after = load('skerry.test', [
			{ url: 'https://skerry.test/more.js', type: 'script', mimeType: 'text/javascript', wireBytes: 150_000 }
		]);
		const before = load('skerry.test');
		before.requests[1]!.responseMs = 400;
		Object.assign(after.requests[1]!, { responseMs: 1000, endMs: 1400 });
		after.lcp!.atMs += 600;
		after.figures.lcp = 1600;
		const { causes } = explainShift([digest(before)], [digest(after)]);
		expect(describeCause(causes[0]!)).to.equal('big.#.jpg waits 600\u00a0ms longer for its server.');
		expect(causes.some(({ kind }) => kind === 'files')).to.equal(true);
	});

	it('compares the waiting of one file with itself alone', () => {
		const after = load('skerry.test');
		Object.assign(after.requests[1]!, { url: 'https://skerry.test/other.png', responseMs: 1000, endMs: 1400 });
		Object.assign(after.lcp!, { url: 'https://skerry.test/other.png', atMs: 1600 });
		after.figures.lcp = 1600;
		const { causes } = explainShift([digest(load('skerry.test'))], [digest(after)]);
		expect(causes.map(({ kind }) => kind)).not.to.include.members(['resource-wait']);
		expect(causes.map(({ kind }) => kind)).not.to.include.members(['resource-receive']);
	});

	it('explains a verdict by what points its way', () => {
		const cause = (metric: 'lcp' | 'wire' | 'requests', shift: number) => ({
			metric,
			shift,
			subject: 'x',
			weight: 1,
			words: `${metric} ${shift}`
		});
		const all = [cause('lcp', 600), cause('lcp', -200), cause('wire', -9000), cause('requests', -4)];
		const told = (verdicts: Parameters<typeof toldCauses>[1]) => toldCauses(all, verdicts).map(({ words }) => words);
		expect(told({ lcp: 'worse' })).to.deep.equal(['lcp 600']);
		expect(told({ lcp: 'slight', wire: 'better' })).to.deep.equal(['lcp 600', 'lcp -200', 'wire -9000', 'requests -4']);
		expect(told({ lcp: 'same', wire: 'worse' })).to.deep.equal([]);
	});

	it('says nothing where nothing differs, and needs loads', () => {
		expect(explainShift([plain()], [plain()]).causes).to.deep.equal([]);
		expect(() => explainShift([], [plain()])).to.throw(RangeError);
	});
});
