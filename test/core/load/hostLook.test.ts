import { expect } from 'chai';
import { ownerFromRdap, parseNameServers, type HostLook } from '$core/load/requests/hostLook';
import { describeHostLook, hostLookRows } from '$core/wording/hostLook';

/** Shortened from the example of an IP network object in RFC 9083, section 5.4. */
const RFC_EXAMPLE = {
	objectClassName: 'ip network',
	handle: 'XXXX-RIR',
	startAddress: '2001:db8::',
	endAddress: '2001:db8:0:ffff:ffff:ffff:ffff:ffff',
	ipVersion: 'v6',
	name: 'NET-RTR-1',
	country: 'AU',
	entities: [
		{
			objectClassName: 'entity',
			handle: 'XXXX',
			vcardArray: [
				'vcard',
				[
					['version', {}, 'text', '4.0'],
					['fn', {}, 'text', 'Joe User']
				]
			],
			roles: ['registrant']
		}
	]
};
const LOOK: HostLook = {
	host: 'skerry-line.test',
	at: '2026-12-01T08:00:00.000Z',
	resolved: [
		{ resolver: 'house', firstMs: 42, againMs: 1, addresses: ['203.0.113.9'], problem: null },
		{ resolver: 'other', firstMs: null, againMs: null, addresses: [], problem: 'it did not answer (ETIMEOUT)' }
	],
	address: '127.0.0.1',
	isMapped: true,
	connectMs: [24, 22, 31],
	tlsMs: [51, 51, 51],
	tlsVersion: 'TLSv1.3',
	problem: null,
	owner: { network: 'OLD-MILL', organisation: 'Old Mill Hosting', country: 'GB' },
	ownerProblem: null
};
const plain = (text: string) => text.replaceAll('\u00a0', ' ');

describe('a host as it really is', () => {
	it('has an owner by RDAP, as RFC 9083 shows one', () => {
		expect(ownerFromRdap(RFC_EXAMPLE)).to.deep.equal({
			network: 'NET-RTR-1',
			organisation: 'Joe User',
			country: 'AU'
		});
		expect(ownerFromRdap({ handle: 'NET-1' })).to.deep.equal({
			network: 'NET-1',
			organisation: null,
			country: null
		});
		for (const broken of [null, [], 'text', {}, { entities: [{ vcardArray: 'x' }] }])
			expect(ownerFromRdap(broken), JSON.stringify(broken)).to.equal(null);
	});

	it('is asked of resolvers that the operator names', () => {
		expect(parseNameServers('house=192.0.2.1:53, 192.0.2.2,[2001:db8::1]:5353')).to.deep.equal([
			{ name: 'house', address: '192.0.2.1:53' },
			{ name: '192.0.2.2', address: '192.0.2.2' },
			{ name: '[2001:db8::1]', address: '[2001:db8::1]:5353' }
		]);
		expect(parseNameServers(undefined)).to.deep.equal([]);
		expect(() => parseNameServers('house=resolver.test')).to.throw(/“house=resolver.test” is no resolver/);
	});

	it('is told with ranges, and says what did not answer', () => {
		expect(hostLookRows(LOOK).map(({ name, words }) => plain(`${name}: ${words}`))).to.deep.equal([
			'Name resolved by house: 42 ms at first, 1 ms again',
			'Name resolved by other: it did not answer (ETIMEOUT)',
			'Address: 203.0.113.9',
			'Connect: 24 ms, 22 ms to 31 ms in 3 (to 127.0.0.1, as the host map says)',
			'TLS handshake: 51 ms in all 3, TLSv1.3',
			'Network: Old Mill Hosting, OLD-MILL, GB'
		]);
		expect(plain(describeHostLook(LOOK, 'today'))).to.match(/name resolved in 42 ms, connected in 24 ms, TLS in 51 ms/);
		const lost: HostLook = { ...LOOK, problem: 'it refused the connection', connectMs: [], tlsMs: [], owner: null };
		expect(hostLookRows(lost).map(({ words }) => words)).to.include('it refused the connection.');
	});
});
