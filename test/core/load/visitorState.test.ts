import { expect } from 'chai';
import * as v from 'valibot';
import { cookieLines, parseCookies, VisitorState } from '$core/load/journey/visitorState';
import { longestLoadMs } from '$core/load/record/limits';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';

describe('a visitor state', () => {
	const read = (value: unknown) => v.safeParse(VisitorState, value);
	const wrong = (value: unknown) => read(value).issues?.[0]?.message ?? '';

	it('has a name and steps or cookies', () => {
		expect(read({ name: ' Signed in ', cookies: [{ name: 'member', value: '1' }] }).output).to.deep.equal({
			name: 'Signed in',
			url: null,
			steps: [],
			cookies: [{ name: 'member', value: '1' }]
		});
		expect(wrong({ name: 'Nobody' })).to.match(/^Give steps or cookies/);
		expect(wrong({ name: '', steps: [{ click: '#a' }] })).to.match(/name/);
		expect(wrong({ name: 'A', steps: [{ jump: 1 }] })).to.match(/A step has one of the verbs/);
		expect(wrong({ name: 'A', url: 'ftp://a.test', steps: [{ click: '#a' }] })).not.to.equal('');
	});

	it('takes cookies as a Cookie header writes them (RFC 6265, section 4.2.1), and as lines', () => {
		const cookies = parseCookies('member=1; basket=a=b\nempty=');
		expect(cookies).to.deep.equal([
			{ name: 'member', value: '1' },
			{ name: 'basket', value: 'a=b' },
			{ name: 'empty', value: '' }
		]);
		expect(parseCookies(cookieLines(cookies))).to.deep.equal(cookies);
		expect(() => parseCookies('no cookie')).to.throw('“no cookie” is no cookie: write “name=value”.');
	});

	it('lengthens the longest time of a load by its own page and steps', () => {
		const conditions = BUILT_IN_CONDITIONS[1]!;
		const order = { conditions, steps: [] };
		const before = { name: 'A', url: null, cookies: [], steps: [{ click: '#a' }] };
		expect(longestLoadMs({ ...order, before }) - longestLoadMs(order)).to.equal(2 * conditions.capMs + 2000);
	});
});
