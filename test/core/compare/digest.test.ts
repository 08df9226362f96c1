import { expect } from 'chai';
import { lcpPartsOf, normalisedPath, type LoadDigest } from '$core/compare/digest';
import { chatty, load, plain } from '../../support/digests';

describe('digest', () => {
	it('matches files over versions of a site and builds', () => {
		expect(normalisedPath('https://a.test/app.9f8e7d6c5b.js?v=3')).to.equal('/app.#.js');
		expect(normalisedPath('https://a.test/2026/picture-20261124.jpg')).to.equal('/2026/picture-#.jpg');
		const keys = (loadDigest: LoadDigest) =>
			loadDigest.files.map((file) => file.key).filter((key) => key.startsWith('own'));
		expect(keys(plain())).to.deep.equal(keys(chatty()));
	});

	it('splits LCP into parts that add up to it', () => {
		expect(plain().lcpParts).to.deep.equal({ firstByte: 200, resourceDelay: 150, resourceLoad: 450, renderDelay: 200 });
		const text = lcpPartsOf({
			...load('a.test'),
			lcp: { atMs: 700, size: 1, selector: 'h1', tag: 'h1', url: null, box: null, text: 'Hi' }
		});
		expect(text).to.deep.equal({ firstByte: 200, resourceDelay: 0, resourceLoad: 0, renderDelay: 500 });
		// A picture that is painted while it still loads.
		const early = lcpPartsOf({
			...load('a.test'),
			lcp: { ...load('a.test').lcp!, atMs: 600, url: 'https://a.test/big.a1b2c3d4e5.jpg' }
		})!;
		expect(Object.values(early).reduce((sum, part) => sum + part, 0)).to.equal(600);
	});

	it('shares CLS among elements by area, blocking time by script owner, the end among owners', () => {
		const { shifts, blocking, tail } = chatty();
		expect(shifts.map(({ element, value }) => [element, Number(value.toFixed(4))])).to.deep.equal([
			['main', 0.075],
			['footer', 0.025]
		]);
		expect(blocking.map(({ owner, ms }) => [owner.id, Math.round(ms)])).to.deep.equal([
			['bell.test', 160],
			['browser', 40]
		]);
		expect(tail.map(({ owner, ms }) => [owner.id, ms])).to.deep.equal([
			['skerry.test', 800],
			['bell.test', 1100]
		]);
	});
});
