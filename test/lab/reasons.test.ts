import { expect } from 'chai';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { isPublicAddress } from '$core/load/requests/publicAddress';
import { Lab } from '../../src/lab/lab';
import { rule, serve, UNWATCHED, type RunningServer } from '../support/world';

const [, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const QUICK: Conditions = { ...DESKTOP, capMs: 5000, quietMs: 300 };

describe('addresses that the lab may not reach', function () {
	this.timeout(60_000);
	let site: RunningServer;
	let lab: Lab;
	before(async () => {
		site = await serve(({ url }, response) => {
			const location = new URL(url!, 'http://a.test').searchParams.get('to');
			if (location) response.writeHead(302, { location }).end();
			else response.writeHead(200, { 'content-type': 'text/html' }).end('<h1>Words</h1>');
		});
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('shop.test', site.port)] });
	});
	after(async () => {
		await lab.close();
		site.close();
	});

	const reasonOf = async (url: string) => (await lab.measure({ url, conditions: QUICK, steps: [] })).record.failure!;

	it('are named as what they are, by redirect too, and in all spellings', async () => {
		const to = (address: string) => `http://shop.test/?to=${encodeURIComponent(address)}`;
		const rows: [address: string, host: string][] = [
			['http://127.0.0.1/', '127.0.0.1'],
			['http://[::1]/', '[::1]'],
			['http://[::127.0.0.1]/', '[::7f00:1]'],
			['http://192.168.1.1/admin', '192.168.1.1']
		];
		for (const [address, host] of rows)
			for (const url of [address, to(address)]) {
				const { code, message } = await reasonOf(url);
				expect(code, `${url}: ${message}`).to.equal('private-address');
				expect(message, url).to.include(host);
			}
		const lost = await reasonOf(to('http://no-such-host.invalid/'));
		expect([lost.code, lost.message.includes('no-such-host.invalid')]).to.deep.equal(['unresolvable', true]);
	});

	it('are all that is not public (RFC 6890), IPv4 inside IPv6 among them', () => {
		const PRIVATE =
			'127.0.0.1 10.1.2.3 172.16.0.1 192.168.0.1 169.254.1.1 0.0.0.0 255.255.255.255 224.0.0.1 100.64.0.1 ::1 :: ' +
			'::127.0.0.1 ::10.0.0.1 ::ffff:127.0.0.1 ::ffff:10.0.0.1 fc00::1 fe80::1 ff02::1 64:ff9b::7f00:1 2002:7f00:1::';
		for (const address of PRIVATE.split(' ')) expect(isPublicAddress(address), address).to.equal(false);
		for (const address of ['93.184.216.34', '2606:4700::1111', '::ffff:93.184.216.34'])
			expect(isPublicAddress(address), address).to.equal(true);
	});
});
