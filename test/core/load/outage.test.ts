import { expect } from 'chai';
import { outsideServices, rankOutages, type OutageResult } from '$core/load/journey/outage';
import { recordOf, requestOf } from '../../support/records';

describe('outside services of a page', () => {
	it('are its third parties while it loads, by registrable domain, those with most requests first', () => {
		const asked = (url: string, during: 'load' | 'patience' = 'load') => requestOf({ url, during });
		const record = recordOf({
			url: 'https://www.own.test/',
			finalUrl: 'https://www.own.test/',
			requests: [
				asked('https://www.own.test/'),
				asked('https://static.own.test/a.css'),
				asked('https://count.test/c.js'),
				asked('https://a.chat.test:444/1.js'),
				asked('https://b.chat.test/2.js'),
				asked('https://late.test/x.js', 'patience')
			]
		});
		expect(outsideServices(record)).to.deep.equal([
			{ id: 'chat.test', name: 'chat.test', hosts: ['a.chat.test', 'b.chat.test'], requests: 2 },
			{ id: 'count.test', name: 'count.test', hosts: ['count.test'], requests: 1 }
		]);
		expect(
			outsideServices(record, ['count.test']).map(({ id }) => id),
			'a CDN of the site'
		).to.deep.equal(['chat.test']);
	});
});

describe('outages', () => {
	const usual = { start: 500, lcp: 900, onload: 1000, errors: 0 };
	const result = (service: string, extra: Partial<OutageResult> = {}): OutageResult => ({
		service,
		how: 'slow',
		load: 1,
		...usual,
		failed: null,
		failedStep: null,
		...extra
	});

	it('are ranked by what they do: a page that breaks, then a later start, then a later largest paint', () => {
		const ranked = rankOutages(
			[
				result('harmless'),
				result('late paint', { lcp: 3900 }),
				result('late start', { start: 3500, lcp: 3900 }),
				result('never shown', { start: null, lcp: null, failed: 'its load event never came' }),
				result('step fails', { failedStep: 2 })
			],
			usual
		);
		expect(ranked.map(({ service }) => service)).to.deep.equal([
			'never shown',
			'step fails',
			'late start',
			'late paint',
			'harmless'
		]);
		expect(ranked[2]).to.include({ startLater: 3000, lcpLater: 3000, isBroken: false });
		expect(ranked[0]).to.include({ startLater: null, isBroken: true });
	});
});
