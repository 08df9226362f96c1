import { expect } from 'chai';
import { failedFetch, type FetchSeen } from '$core/load/requests/stability';
import { cacheStateOf, countCached, isOpen, withAnswer, type PageAsked } from '$core/pages/settling';
import { describeCacheCount, describePageAsked } from '$core/wording/gathering';

const answer = (cache: 'hit' | 'miss' | null, extra: Partial<FetchSeen> = {}): FetchSeen => ({
	...failedFetch(''),
	problem: null,
	status: 200,
	bytes: 1000,
	tookMs: 400,
	cache,
	...extra
});
const page = (condition: string, ...answers: FetchSeen[]): PageAsked =>
	answers.reduce<PageAsked>(withAnswer, { pageId: 1, url: 'http://a.test/', condition, answers: [], asked: 0 });

describe('a site’s cache', () => {
	it('has a page, fills, says nothing, or fails: by the newest answer', () => {
		expect(cacheStateOf(page('phone'))).to.equal(null);
		expect(cacheStateOf(page('phone', answer('miss'), answer('hit')))).to.equal('cached');
		expect(cacheStateOf(page('phone', answer('hit'), answer('miss')))).to.equal('filling');
		expect(cacheStateOf(page('phone', answer(null)))).to.equal('silent');
		expect(cacheStateOf(page('phone', answer('hit', { status: 503 })))).to.equal('failed');
		expect(cacheStateOf(page('phone', failedFetch('refused')))).to.equal('failed');
	});

	it('is asked until it has the page; one that says nothing, until three answers are alike', () => {
		expect(isOpen(page('phone'))).to.equal(true);
		expect(isOpen(page('phone', answer('miss')))).to.equal(true);
		expect(isOpen(page('phone', answer('miss'), answer('hit')))).to.equal(false);
		expect(isOpen(page('phone', answer(null), answer(null)))).to.equal(true);
		expect(isOpen(page('phone', answer(null), answer(null), answer(null)))).to.equal(false);
		expect(isOpen(page('phone', failedFetch('refused')))).to.equal(true);
	});

	it('is counted by device, with what was there before anybody asked', () => {
		const pages = [
			page('phone', answer('hit')),
			page('phone', answer('miss'), answer('hit')),
			page('phone', answer('miss')),
			page('phone', answer(null)),
			page('desktop', failedFetch('refused'))
		];
		const [phone, desktop] = countCached(pages);
		expect(phone).to.deep.equal({ condition: 'phone', pages: 4, cached: 2, cachedBefore: 1, silent: 1, failed: 0 });
		expect(describeCacheCount(phone!, 'Phone')).to.equal(
			'2 of 4 on Phone, 1 of them before they were asked; one names no cache'
		);
		expect(describeCacheCount(desktop!, 'Desktop')).to.equal('0 of 1 on Desktop; one failed');
	});

	it('is told of a page with its time now and at first, whatever was between', () => {
		const many = page('phone', ...Array.from({ length: 9 }, () => answer('miss')), answer('hit', { tookMs: 40 }));
		expect(many.answers).to.have.length(4);
		expect(describePageAsked(many)).to.equal('from the cache, 40\u00a0ms; 400\u00a0ms at first');
		expect(describePageAsked(page('phone', answer(null)))).to.equal('no header names a cache, 400\u00a0ms');
		expect(describePageAsked(page('phone', answer(null, { status: 404 })))).to.equal('status 404');
		expect(describePageAsked(page('phone', failedFetch('it hung up')))).to.equal('no answer: it hung up');
	});
});
