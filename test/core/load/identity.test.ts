import { expect } from 'chai';
import { identityDifferences, visitorAgent } from '$core/load/journey/identity';
import { emptyPage } from '$core/load/record/emptyRecord';
import { wordIdentity } from '$core/wording/identity';
import { recordOf, requestOf } from '../../support/records';

const page = (hosts: string[], { title = 'Home', text = 'boats leave every hour from here', bytes = 50_000 } = {}) =>
	recordOf({
		status: 'ok',
		failure: null,
		url: 'https://own.test/',
		finalUrl: 'https://own.test/',
		page: { ...emptyPage(title), text },
		requests: [
			requestOf({ url: 'https://own.test/', type: 'document', decodedBytes: bytes, wireBytes: bytes }),
			...hosts.map((host) => requestOf({ url: `https://${host}/a.js`, wireBytes: 1000 }))
		]
	});
const codes = (lab: ReturnType<typeof page>, visitor: ReturnType<typeof page>) =>
	identityDifferences(lab, visitor).map(({ code }) => code);

describe('a page that is served otherwise to a visitor', () => {
	it('is told by its title, words, hosts, requests and bytes', () => {
		const lab = page([]);
		expect(codes(lab, page([]))).to.deep.equal([]);
		expect(codes(lab, page([], { title: 'Welcome' }))).to.deep.equal(['title']);
		expect(codes(lab, page([], { text: 'buses leave every hour from there' }))).to.deep.equal(['words']);
		expect(codes(lab, page(['chat.test']))).to.deep.equal(['hosts-new']);
		expect(codes(page(['fast.test']), lab)).to.deep.equal(['hosts-gone']);
		expect(codes(lab, page(['own.test', 'own.test', 'own.test']))).to.deep.equal(['requests', 'bytes']);
		expect(codes(lab, page([], { bytes: 54_000 }))).to.deep.equal(['document', 'bytes']);
	});

	it('is told above all when it fails for one of them', () => {
		const refused = { code: 'http-status' as const, message: 'The server answered 403.', advice: '' };
		const visitor = recordOf({ status: 'failed', failure: refused });
		const [difference] = identityDifferences(page([]), visitor);
		expect(wordIdentity(difference!)).to.equal('To the lab: loaded To a visitor: The server answered 403.');
	});

	it('is worded with both sides', () => {
		const [hosts] = identityDifferences(page([]), page(['chat.test']));
		expect(wordIdentity(hosts!)).to.equal('Only the visitor’s page asks chat.test.');
	});
});

describe('the name of an ordinary browser', () => {
	// Chromium's reduced form: chromium.org, "User-Agent Reduction".
	it('is the reduced one, and names no lab', () => {
		expect(visitorAgent(true, '156')).to.equal(
			'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Mobile Safari/537.36'
		);
		expect(visitorAgent(false, '156')).not.to.match(/Headless|Zafra|Mobile/);
	});
});
