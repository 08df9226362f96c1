import { expect } from 'chai';
import { ADDRESSES } from '../support/svelte/addresses';
import { startApp, type TestApp } from '../support/app';
import { sampleOf } from '../support/sample';
import { until } from '../support/world';

const DAY_MS = 86_400_000;

for (const days of sampleOf([400, 100], 1))
	describe(`the app ${days} days from now`, function () {
		this.timeout(240_000);
		let app: TestApp;
		before(async () => {
			app = await startApp({ demo: true, days });
		});
		after(() => app.end());

		it('shows every screen, over a demonstration that is as old as it is today', async () => {
			for (const path of ADDRESSES) {
				const answer = await fetch(app.url + path);
				expect(answer.status, `${path}\n${app.words().slice(-1000)}`).to.equal(200);
			}
			const { startedAt } = (await app.api('GET', '/api/loads/1')).body;
			expect(Date.now() + days * DAY_MS - Date.parse(startedAt)).to.be.within(0, 30 * DAY_MS);
		});

		it('loads a page, and dates it by its clock', async () => {
			const asked = await app.api('POST', '/api/loads', { url: 'https://skerry-line.test/', conditions: 'desktop' });
			const single = async () => (await app.api('GET', `/api/singles/${asked.body.id}`)).body;
			await until(async () => (await single()).loadId !== null, 150_000, 'a load');
			const record = (await app.api('GET', `/api/loads/${(await single()).loadId}`)).body;
			expect(record.failure).to.equal(null);
			expect(record.figures.lcp).to.be.within(1, 20_000);
			expect(Date.parse(record.startedAt) - Date.now()).to.be.closeTo(days * DAY_MS, DAY_MS);
		});
	});
