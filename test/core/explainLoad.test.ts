import { expect } from 'chai';
import type { LoadDigest } from '$core/compare/digest';
import { explainLoad } from '$core/compare/explainLoad';
import { noFigures } from '$core/metrics/catalogue';
import { describeLoad } from '$core/wording/explainLoad';

const owner = (name: string, kind: 'own' | 'third-party' = 'third-party') => ({ id: name, name, kind });
const digest = (extra: Partial<LoadDigest> = {}) =>
	({
		figures: { ...noFigures(), lcp: 2000, cls: 0.12 },
		lcpParts: { firstByte: 500, resourceDelay: 1200, resourceLoad: 200, renderDelay: 100 },
		lcpElement: 'body > main > div.hero > img',
		blocking: [
			{ owner: owner('site.test', 'own'), ms: 80 },
			{ owner: owner('chat.test'), ms: 420 }
		],
		shifts: [
			{ element: 'header', value: 0.02 },
			{ element: 'body > main', value: 0.1 }
		],
		tail: [
			{ owner: owner('site.test', 'own'), ms: 1500 },
			{ owner: owner('ads.test'), ms: 900 }
		],
		...extra
	}) as LoadDigest;

describe('why one load is slow', () => {
	it('names the longest wait of the largest paint, who blocked, what moved and whose the tail is', () => {
		const why = explainLoad(digest());
		expect(why.lcp!.parts[0]).to.deep.equal({ part: 'resourceDelay', ms: 1200 });
		expect(why.blocking).to.deep.equal({
			ms: 500,
			owners: [
				{ name: 'chat.test', ms: 420 },
				{ name: 'site.test', ms: 80 }
			]
		});
		expect(why.moved!.elements[0]).to.deep.equal({ name: 'body > main', value: 0.1 });
		expect(why.tail).to.deep.equal({ ms: 900, owners: [{ name: 'ads.test', ms: 900 }] });
	});

	it('says it in four sentences, with only the large parts of the wait', () => {
		const sentences = describeLoad(explainLoad(digest()));
		expect(sentences).to.deep.equal([
			'The largest paint (div.hero > img) came after 2.00\u00a0s: 1.20\u00a0s until its file was requested and 500\u00a0ms until the first byte.',
			'The main thread was blocked for 500\u00a0ms, by chat.test (420\u00a0ms) and site.test (80\u00a0ms).',
			'Content moved by 0.120: body > main (0.100) and header (0.020).',
			'Other companies kept the page loading for 900\u00a0ms after the site itself was complete: ads.test.'
		]);
	});

	it('keeps silent about what is too small, and about what was not measured', () => {
		const calm = digest({
			figures: { ...noFigures(), cls: 0.004 },
			lcpParts: null,
			blocking: [{ owner: owner('site.test', 'own'), ms: 20 }],
			tail: [{ owner: owner('ads.test'), ms: 100 }]
		});
		expect(explainLoad(calm)).to.deep.equal({ lcp: null, blocking: null, moved: null, tail: null });
		expect(describeLoad(explainLoad(calm))).to.deep.equal([]);
	});

	it('counts owners beyond the second', () => {
		const blocking = ['a', 'b', 'c', 'd'].map((name, i) => ({ owner: owner(name), ms: 100 - i }));
		const [, sentence] = describeLoad(explainLoad(digest({ blocking })));
		expect(sentence).to.match(/by a \(100\u00a0ms\), b \(99\u00a0ms\) and 2 more\.$/);
	});
});
