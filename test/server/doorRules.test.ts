import { expect } from 'chai';
import {
	allowedHosts,
	isOpenToOthers,
	isVisit,
	ownHost,
	parseProxies,
	refusal,
	senderOf,
	straighten
} from '../../scripts/door.mjs';
import { ownPath } from '../../src/lib/server/http/ownPath';

describe('the door', () => {
	const allowed = allowedHosts('127.0.0.1', 4170, 'https://zafra.agency.test, http://desk.test:8080');
	const get = (host: string) => refusal({ method: 'GET', headers: { host } }, allowed)?.status ?? 200;
	const post = (headers: Record<string, string>) =>
		refusal({ method: 'POST', headers: { host: '127.0.0.1:4170', ...headers } }, allowed)?.status ?? 200;

	it('opens under its own names alone, which ends DNS rebinding', () => {
		for (const host of ['127.0.0.1:4170', 'localhost:4170', '[::1]:4170', 'zafra.agency.test', 'desk.test:8080'])
			expect(get(host), host).to.equal(200);
		expect(get('')).to.equal(400);
		for (const host of [
			'evil.test',
			'evil.test:4170',
			'127.0.0.1',
			'127.0.0.1:4171',
			'localhost.evil.test:4170',
			'zafra.agency.test:4170',
			'0.0.0.0:4170'
		])
			expect(get(host), host).to.equal(421);
		expect(() => allowedHosts('127.0.0.1', 4170, 'zafra')).to.throw('ZAFRA_ORIGINS');
	});

	/** What an address is built from must not be able to bring a path of its own. */
	const TWISTED = [
		'a/api/clients?',
		'a/api/clients#',
		'a?b',
		'a\\b',
		'ana@127.0.0.1:4170',
		'127.0.0.1:4170/',
		'127.0.0.1:4170:80',
		'127.0.0.1:',
		'a b',
		'[::1',
		'a,b',
		'%61.test',
		'-a.test'
	];

	it('answers no Host that is not a name with a port, not even at the visits’ door', () => {
		for (const host of TWISTED)
			for (const url of ['/visit', '/visit/zafra.js?site=a', '/', '/api/clients'])
				expect(refusal({ headers: { host }, url }, allowed)?.status, `${host} ${url}`).to.equal(400);
		const twice = { headers: { host: '127.0.0.1:4170' }, rawHeaders: ['Host', '127.0.0.1:4170', 'host', 'evil.test'] };
		expect(refusal(twice, allowed)?.status).to.equal(400);
		for (const url of ['http://evil.test/visit', '*', 'visit'])
			expect(refusal({ headers: { host: '127.0.0.1:4170' }, url }, allowed)?.status, url).to.equal(400);
	});

	it('opens the visits’ door for the paths that are routed there alone', () => {
		for (const url of ['/visit', '/visit?a=b', '/visit/zafra.js?site=a', '/api/../visit', '/./visit'])
			expect(isVisit(url), url).to.equal(true);
		for (const url of [
			'/visit/../api/clients',
			'/visit/..%2fapi/clients',
			'/visit\\..\\api\\clients',
			'//evil.test/visit',
			'/visit/',
			'/visits',
			'/api/clients?/visit',
			'/api/clients#/visit'
		])
			expect(isVisit(url), url).to.equal(false);
	});

	it('has the app build its address from configured origins, never from what was sent', () => {
		const place = { allowed, proxies: parseProxies('10.0.0.0/8'), own: ownHost(4170, 'https://zafra.agency.test') };
		const straight = (headers: Record<string, string>) => {
			const request = { headers, socket: { remoteAddress: '192.0.2.7' } };
			straighten(request, place);
			return request.headers;
		};
		expect(straight({ host: 'evil.test', 'x-forwarded-proto': 'http' })).to.include({
			host: 'zafra.agency.test',
			'x-forwarded-proto': 'https'
		});
		expect(straight({ host: 'Zafra.Agency.test' })).to.include({ host: 'zafra.agency.test' });
		expect(straight({ host: '127.0.0.1:4170', 'x-forwarded-proto': 'https://evil.test/?' })).to.include({
			'x-forwarded-proto': 'http',
			'x-zafra-sender': '192.0.2.7'
		});
	});

	it('takes the word of trusted proxies for who asks, and nobody else’s', () => {
		const proxies = parseProxies('127.0.0.1, 10.0.0.0/8, 2001:db8::/32');
		const sender = (remoteAddress: string, named?: string) =>
			senderOf({ socket: { remoteAddress }, headers: { 'x-forwarded-for': named } }, proxies);
		const rows: [string, string | undefined, string][] = [
			['127.0.0.1', '203.0.113.9', '203.0.113.9'],
			['::ffff:127.0.0.1', '203.0.113.9', '203.0.113.9'],
			['2001:db8::5', '2001:4860::1', '2001:4860::1'],
			// A visitor that names somebody else in front: the proxy's own word comes last.
			['10.1.2.3', '1.1.1.1, 203.0.113.9', '203.0.113.9'],
			['127.0.0.1', '203.0.113.9, 10.4.4.4', '203.0.113.9'],
			['203.0.113.50', '198.51.100.1', '203.0.113.50'],
			['127.0.0.1', 'nobody', '127.0.0.1'],
			['127.0.0.1', undefined, '127.0.0.1'],
			['127.0.0.1', '203.0.113.9:5123', '203.0.113.9'],
			['127.0.0.1', '[2001:4860::2]:443', '2001:4860::2']
		];
		for (const [from, named, who] of rows) expect(sender(from, named), `${from} ${named}`).to.equal(who);
		expect(() => parseProxies('proxy.test')).to.throw('ZAFRA_PROXIES');
	});

	it('lets no other site change anything', () => {
		expect(post({})).to.equal(200);
		expect(post({ 'sec-fetch-site': 'same-origin', origin: 'http://127.0.0.1:4170' })).to.equal(200);
		expect(post({ 'sec-fetch-site': 'cross-site' })).to.equal(403);
		expect(post({ 'sec-fetch-site': 'same-site', origin: 'http://127.0.0.1:9999' })).to.equal(403);
		expect(post({ origin: 'http://evil.test' })).to.equal(403);
		expect(post({ origin: 'null' })).to.equal(403);
	});

	it('knows which addresses let others in', () => {
		for (const host of ['127.0.0.1', 'localhost', '::1', '127.0.0.53'])
			expect(isOpenToOthers(host), host).to.equal(false);
		for (const host of ['0.0.0.0', '::', '192.0.2.7', 'zafra.agency.test'])
			expect(isOpenToOthers(host), host).to.equal(true);
	});

	it('leads back to own paths only', () => {
		expect(['/trials?state=done', '/'].map(ownPath)).to.deep.equal(['/trials?state=done', '/']);
		for (const path of [
			'/\\evil.test/',
			'//evil.test/',
			'/\t/evil.test',
			'http://evil.test/',
			'trials',
			'\\\\evil.test',
			'/.//evil.test',
			'/a/..//evil.test',
			'/%0d%0aset-cookie:x'
		]) {
			const back = ownPath(path);
			expect(new URL(back, 'http://own.test').origin, path).to.equal('http://own.test');
			expect(back, path).to.match(/^\/(?![/\\])/);
		}
	});
});
