import { expect } from 'chai';
import { isStable, stabilityOf, type FetchSeen } from '$core/load/requests/stability';
import { describeStability } from '$core/wording/stability';

describe('stability of the served page', () => {
	const seen = (more: Partial<FetchSeen> = {}): FetchSeen => ({
		atMs: 0,
		status: 200,
		bytes: 10_000,
		etag: '"a"',
		lastModified: null,
		cacheControl: 'max-age=60',
		cache: 'hit',
		problem: null,
		...more
	});

	it('is three fetches alike, small changes of size allowed', () => {
		expect(isStable([seen(), seen({ bytes: 10_030 }), seen()])).to.equal(true);
		expect(isStable([seen(), seen()])).to.equal(false);
		expect(isStable([seen({ cache: 'miss' }), seen(), seen()])).to.equal(false);
		expect(isStable([seen({ cache: 'miss' }), seen(), seen(), seen()])).to.equal(true);
		expect(isStable([seen(), seen(), seen({ bytes: 12_000 })])).to.equal(false);
		expect(isStable([seen({ problem: 'x' }), seen({ problem: 'x' }), seen({ problem: 'x' })])).to.equal(false);
	});

	it('says what it saw', () => {
		expect(describeStability(stabilityOf([seen(), seen(), seen({ atMs: 3100 })]))).to.equal(
			'Stable after 3 fetches in 3.1\u00a0s, from a cache.'
		);
		expect(
			describeStability(stabilityOf([seen(), seen(), seen({ etag: '"b"', bytes: 12_000, atMs: 30_000 })]))
		).to.match(/^Not stable after 3 fetches in 30.s: the ETag, the size \(10000, 12000 bytes\) still changed/);
	});
});
