import { expect } from 'chai';
import { levelOf } from '$core/audits/audit';
import { sideFindings } from '$core/audits/side';
import { headChecks, type HeadFacts } from '$core/load/journey/sideChecks';
import { stateAfter } from '$core/findings/worklist';

const GOOD: HeadFacts = {
	title: 'Ferries to the islands – Skerry Line',
	description: 'Timetables and bookings of the ferries to Inner and Outer Skerry, all year round.',
	language: 'en-GB',
	viewport: 'width=device-width,initial-scale=1',
	headings: [1, 2, 3, 2],
	robots: '',
	canonical: 'https://skerry-line.test/',
	namelessLinks: 0,
	isSecure: true,
	address: 'https://skerry-line.test/'
};
const wrong = (facts: Partial<HeadFacts>) =>
	headChecks({ ...GOOD, ...facts })
		.filter(({ isGood }) => !isGood)
		.map(({ check }) => check);

describe('levels of an audit', () => {
	it('are a median with its range, in a band or about the line', () => {
		// The largest paint: good up to 2.5 s, poor above 4 s (web.dev).
		expect(levelOf('lcp', [2000, 2400, 2200])).to.deep.equal({ middle: 2200, least: 2000, most: 2400, band: 'good' });
		expect(levelOf('lcp', [2400, 2600, 2550])!.band).to.equal('line');
		expect(levelOf('lcp', [4100, 4500, 5000])!.band).to.equal('poor');
		expect(levelOf('requests', [10, 12])).to.deep.include({ band: null, middle: 11 });
		expect(levelOf('lcp', [])).to.equal(null);
	});
});

describe('checks of the head', () => {
	it('find nothing on a good page', () => {
		expect(wrong({})).to.deep.equal([]);
	});

	it('find each fault by itself', () => {
		expect(wrong({ title: 'X' })).to.deep.equal(['title']);
		expect(wrong({ description: '' })).to.deep.equal(['description']);
		expect(wrong({ language: '' })).to.deep.equal(['language']);
		expect(wrong({ viewport: 'width=device-width, maximum-scale=1' })).to.deep.equal(['viewport']);
		expect(wrong({ headings: [1, 3] })).to.deep.equal(['headings']);
		expect(wrong({ headings: [1, 2, 1] })).to.deep.equal(['headings']);
		expect(wrong({ headings: [] })).to.deep.equal(['headings']);
		expect(wrong({ robots: 'noindex, follow' })).to.deep.equal(['robots']);
		expect(wrong({ namelessLinks: 2 })).to.deep.equal(['links']);
		expect(wrong({ isSecure: false })).to.deep.equal(['https']);
	});

	it('are grouped over pages with axe’s, most pages first', () => {
		const axe = (count: number) => [
			{ id: 'label', impact: 'critical', help: 'Form elements must have labels', selectors: ['input'], count }
		];
		const checks = (count: number, title: string) => ({
			version: '4',
			axe: axe(count),
			head: headChecks({ ...GOOD, title })
		});
		const side = sideFindings([
			{ page: 0, checks: checks(1, GOOD.title) },
			{ page: 1, checks: checks(4, 'X') },
			{ page: 1, checks: { ...checks(2, 'X'), axe: null } }
		]);
		expect(side.map(({ check, count, pages }) => [check, count, pages])).to.deep.equal([
			['label', 4, [0, 1]],
			['title', 1, [1]]
		]);
	});
});

describe('a line of the worklist', () => {
	it('is seen done only when an audit no longer sees it, and comes back from there alone', () => {
		expect(stateAfter('done', 'gone')).to.equal('seen-done');
		expect(stateAfter('open', 'gone')).to.equal('seen-done');
		expect(stateAfter('not-worth', 'gone')).to.equal('not-worth');
		expect(stateAfter('done', 'not-seen')).to.equal('done');
		expect(stateAfter('done', 'left')).to.equal('done');
		expect(stateAfter('seen-done', 'left')).to.equal('came-back');
		expect(stateAfter('seen-done', 'new')).to.equal('came-back');
		expect(stateAfter('seen-done', 'not-seen')).to.equal('seen-done');
	});
});
