import { expect } from 'chai';
import { ownerOf, sharesOf } from '$core/load/requests/owners';
import { thirdPartyTail } from '$core/load/vitals/tail';
import type { RequestRecord } from '$core/load/record/record';
import { requestOf } from '../support/records';

const request = (host: string, wireBytes: number, startMs: number, endMs: number | null) =>
	({ host, wireBytes, decodedBytes: wireBytes * 2, startMs, endMs }) as RequestRecord;

describe('owners', () => {
	it('go by registrable domain, with the site’s CDN apart', () => {
		expect(ownerOf('www.skerry-line.test', 'skerry-line.test').kind).to.equal('own');
		expect(ownerOf('cdn.skerry-line.test', 'skerry-line.test').kind).to.equal('own-cdn');
		expect(ownerOf('edge-77.example', 'skerry-line.test', ['edge-77.example']).kind).to.equal('own-cdn');
		expect(ownerOf('parlour-bell.test:9', 'skerry-line.test')).to.deep.equal({
			id: 'parlour-bell.test',
			name: 'parlour-bell.test',
			kind: 'third-party'
		});
		// Public suffix list: a name under co.uk is a domain of its own.
		expect(ownerOf('a.shop.co.uk', 'b.shop.co.uk').kind).to.equal('own');
		expect(ownerOf('a.co.uk', 'b.co.uk').kind).to.equal('third-party');
		expect(ownerOf('127.0.0.1', '127.0.0.1').kind).to.equal('own');
	});

	it('share the bytes, and the shares add up', () => {
		const requests = [
			request('a.test', 100, 0, 50),
			request('cdn.a.test', 10, 20, 90),
			request('b.test', 500, 60, 900),
			request('c.test', 5, 70, null)
		];
		const shares = sharesOf(requests, 'a.test');
		expect(shares.map((share) => share.id)).to.deep.equal(['a.test', 'cdn:a.test', 'b.test', 'c.test']);
		expect(shares.reduce((sum, share) => sum + share.wireBytes, 0)).to.equal(615);
		expect(thirdPartyTail(shares)).to.deep.equal({ ownMs: 90, allMs: 900, tailMs: 810 });
	});
});

describe('CDN hosts by the site’s list', () => {
	it('count as the site’s own', () => {
		const requests = [
			requestOf({ url: 'https://files.elsewhere.test/a.js', wireBytes: 10 }),
			requestOf({ url: 'https://own.test/', wireBytes: 5 })
		];
		expect(sharesOf(requests, 'own.test').map((share) => share.kind)).to.deep.equal(['own', 'third-party']);
		expect(sharesOf(requests, 'own.test', ['files.elsewhere.test']).map((share) => share.kind)).to.deep.equal([
			'own',
			'own-cdn'
		]);
	});
});
