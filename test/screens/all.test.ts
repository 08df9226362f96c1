import { expect } from 'chai';
import { dataOf, demoDb, routePatterns, screen } from '../support/svelte/screens';
import { ADDRESSES } from '../support/svelte/addresses';
import type { Shown } from '../support/svelte/show';

describe('every screen of the demonstration, as the server renders it', function () {
	this.timeout(120_000);
	before(demoDb);

	it('is in this list', () => {
		const seen = (pattern: string) => {
			const expression = new RegExp(`^${pattern.replace(/\[\w+\]/g, '[^/?]+')}(\\?|$)`);
			return ADDRESSES.some((address) => expression.test(address));
		};
		// Reports are written in their own test: the demonstration's are frozen by its lab.
		const others = routePatterns().filter((pattern) => !pattern.startsWith('/reports/'));
		expect(others.filter((pattern) => !seen(pattern))).to.deep.equal([]);
	});

	for (const address of ADDRESSES)
		describe(address, () => {
			let shown: Shown;
			before(async () => (shown = await screen(address)));

			it('has one heading, and says nothing that no person would', () => {
				expect(shown.all('h1')).to.have.length(1);
				expect(shown.the('h1').text).not.to.equal('');
				expect(shown.text).not.to.match(/undefined|NaN|\[object|\bnull\b/);
				// Dates are written out, and no message keeps the braces of its pattern.
				expect(shown.text).not.to.match(/\d{4}-\d\d-\d\dT\d\d:/);
				expect(shown.text).not.to.match(/\{\w+, (plural|select|number)/);
			});

			it('names every control, link and picture', () => {
				const accessibleName = (item: Shown) =>
					['aria-label', 'aria-labelledby', 'title'].map((name) => item.attribute(name)).find(Boolean) ?? item.text;
				for (const link of shown.all('a')) {
					expect(accessibleName(link), 'a link').not.to.equal('');
					expect(link.attribute('href'), link.text).to.be.a('string').and.not.include('undefined');
				}
				for (const button of shown.all('button')) expect(accessibleName(button), 'a button').not.to.equal('');
				for (const image of shown.all('img')) expect(image.attribute('alt'), image.attribute('src')!).to.be.a('string');
			});

			it('uses each id once, and each label names something', () => {
				const ids = shown.all('[id]').map((item) => item.attribute('id')!);
				expect(ids.filter((id, i) => ids.indexOf(id) !== i)).to.deep.equal([]);
				const targets = shown.all('label[for]').map((label) => label.attribute('for')!);
				expect(targets.filter((id) => !ids.includes(id))).to.deep.equal([]);
			});

			it('has headings that go down a step at a time', () => {
				const levels = shown.all('h1,h2,h3,h4').map(({ name }) => Number(name.slice(1)));
				const jumps = levels.filter((level, i) => level > (levels[i - 1] ?? 0) + 1);
				expect(jumps).to.deep.equal([]);
			});
		});

	it('is told as missing, with what is missing, where there is nothing', async () => {
		for (const [address, words] of [
			['/trials/999', 'There is no trial 999.'],
			['/loads/999999', 'There is no load 999999.'],
			['/standings/1', 'There is no standing 1.'],
			['/watch/1/999', 'This watch has no page 999.'],
			['/clients/999', 'There is no client 999.']
		] as const) {
			const problem = await dataOf(address).then(
				() => null,
				(error: { status: number; body: { message: string } }) => error
			);
			expect(problem, address).to.deep.include({ status: 404, body: { message: words } });
		}
	});
});
