import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { until } from '../support/world';

describe('links to reports behind a proxy', function () {
	this.timeout(120_000);
	let app: TestApp;
	let link: string;
	let locked: string;
	const reader = (address: string) => ({ 'x-forwarded-for': address });
	const open = (path: string, address: string, init: RequestInit = {}) =>
		fetch(app.url + path, { ...init, redirect: 'manual', headers: { ...reader(address), ...init.headers } });
	const tryPhrase = (phrase: string, address: string) =>
		open(locked, address, { method: 'POST', body: new URLSearchParams({ phrase }), headers: { origin: app.url } });

	before(async () => {
		app = await startApp({ environment: { ZAFRA_RUNNER: 'off', ZAFRA_PROXIES: '127.0.0.1' } });
		const { body: client } = await app.api('POST', '/api/clients', { name: 'Skerry Line' });
		const asked = { clientId: client.id, title: 'Three pages', language: 'en' };
		const { body: made } = await app.api('POST', '/api/reports', asked);
		const path = `/api/reports/${made.id}`;
		const { body: report } = await app.api('GET', path);
		const words = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Words.' }] }] };
		const draft = {
			...report.draft,
			blocks: [{ id: 'words', kind: 'text', heading: 'Words', words }],
			disclosure: { ...report.draft.disclosure, isPaid: false }
		};
		const saved = await app.api('PATCH', path, { draft, revision: report.revision });
		expect(saved.status, JSON.stringify(saved.body)).to.equal(200);
		expect((await app.api('POST', `${path}/versions`)).status).to.equal(201);
		const share = async (phrase: string) => {
			const { body } = await app.api('POST', `${path}/versions/1/shares`, { phrase });
			return new URL(body.url).pathname;
		};
		link = await share('');
		locked = await share('open sesame');
		await until(async () => (await open(link, '198.51.100.9')).status === 200, 5000, 'the link to open');
	});
	after(() => app.end());

	it('that are wrong are slowed down for who tries them, and lock no good one', async () => {
		const wrong = async (address: string) => (await open(`/r/${'x'.repeat(43)}`, address)).status;
		for (let i = 0; i < 30; i++) expect(await wrong('198.51.100.1')).to.equal(404);
		expect(await wrong('198.51.100.1')).to.equal(429);
		expect(await wrong('198.51.100.2'), 'another visitor of the same proxy').to.equal(404);
		expect((await open(link, '198.51.100.1')).status, 'a good link, from where wrong ones came').to.equal(200);
		expect((await open(link, '198.51.100.2')).status).to.equal(200);
	});

	it('with a pass phrase are locked for an address that guesses, and for nobody else', async () => {
		for (let i = 0; i < 30; i++) expect((await tryPhrase(`guess ${i}`, '198.51.100.3')).status).to.equal(401);
		expect((await tryPhrase('open sesame', '198.51.100.3')).status).to.equal(429);
		expect((await tryPhrase('open sesame', '198.51.100.4')).status).to.equal(303);
		expect((await open(link, '198.51.100.3')).status, 'another link').to.equal(200);
	});

	it('say the key with which their evidence is signed', async () => {
		expect(await (await open(link, '198.51.100.5')).text()).to.match(/signed with the key [\w-]{8} [\w -]{35,}/);
	});
});
