import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import type { LoadOrder } from '$core/load/journey/order';
import { servedFrom } from '$core/load/requests/delivery';
import { Lab } from '../../src/lab/lab';
import { startDemoWeb, UNWATCHED, type RunningWorld } from '../support/world';

describe('a visitor who comes signed in, or with a basket', function () {
	this.timeout(120_000);
	const conditions = { ...BUILT_IN_CONDITIONS[1]!, quietMs: 700 };
	let web: RunningWorld;
	let lab: Lab;
	before(async () => {
		web = await startDemoWeb();
		lab = new Lab({ hostMap: web.rules, trustedKeys: [web.keyHash], calm: UNWATCHED });
	});
	after(async () => {
		await lab.close();
		web.close();
	});
	const MEMBERS = 'https://members.skerry-line.test';
	const load = async (before: LoadOrder['before'], url = `${MEMBERS}/contact`, selectors = ['#member-note']) =>
		(await lab.measure({ url, conditions, steps: [], selectors, before })).record;
	const signedIn = {
		name: 'Signed in',
		url: `${MEMBERS}/account`,
		cookies: [],
		steps: [
			{ type: 'Ines', into: '#account-name' },
			{ click: '#account-enter' },
			{ expect: { selector: '#account-hello' } }
		]
	};

	it('is served past the page cache, by steps or by a cookie, where an anonymous one is not', async () => {
		await load(null);
		const anonymous = await load(null);
		expect(anonymous.status, anonymous.failure?.message).to.equal('ok');
		expect([servedFrom(anonymous.requests[0]!), anonymous.selectors[0]!.count]).to.deep.equal(['hit', 0]);
		expect(anonymous.environment.visitor).to.equal(null);
		const cookie = { name: 'Member', url: null, steps: [], cookies: [{ name: 'member', value: '1' }] };
		for (const state of [signedIn, cookie]) {
			const record = await load(state);
			expect(record.status, record.failure?.message).to.equal('ok');
			expect([servedFrom(record.requests[0]!), record.selectors[0]!.count], state.name).to.deep.equal(['miss', 1]);
			expect(record.environment.visitor).to.equal(state.name);
			// Only the page itself is measured, and on a first visit no file comes from what the steps left behind.
			expect(record.requests.filter(({ fromCache }) => fromCache)).to.deep.equal([]);
			expect(record.requests.some(({ url }) => url.endsWith('/account'))).to.equal(false);
		}
	});

	it('keeps a basket in the site’s storage', async () => {
		const shop = 'https://pellows-seed-house.test';
		const basket = {
			name: 'Basket filled',
			url: `${shop}/seed/bean`,
			cookies: [],
			steps: [{ click: '[data-buy]' }, { expect: { selector: '.in-cart', text: '1 packet' } }]
		};
		const record = await load(basket, `${shop}/cart`, ['[data-cart] li']);
		expect(record.status, record.failure?.message).to.equal('ok');
		expect(record.selectors[0]!.count).to.equal(1);
	});

	it('who could not be made is no other visitor: the load fails and says at which step', async () => {
		const lost = { ...signedIn, steps: [{ click: '#no-such-button' }] };
		const record = await load(lost);
		expect(record.failure).to.include({ code: 'visitor-state' });
		expect(record.failure!.message).to.match(/“Signed in” was not reached\. Step 1, Click #no-such-button/);
	});
});
