/** Calls that the interface makes and the API gives too. */
import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { placeDatabase } from '../support/databases';
import { deriveAllIn } from '../support/derive';

describe('what the interface can do, the API can', function () {
	this.timeout(60_000);
	let app: TestApp;
	before(async () => {
		app = await startApp({
			environment: { ZAFRA_RUNNER: 'off' },
			async prepare(folder) {
				placeDatabase(4, folder);
				await deriveAllIn(folder);
			}
		});
	});
	after(() => app.end());
	const call = async (method: string, path: string, body?: unknown) => {
		const response = await fetch(app.url + path, {
			method,
			...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
		});
		const text = await response.text();
		return { status: response.status, body: text.startsWith('{') ? JSON.parse(text) : text };
	};

	it('lists trials by state, kind, words, host and answer, a page at a time', async () => {
		const ids = async (query: string) =>
			(await call('GET', `/api/trials?${query}`)).body.trials.map((trial: { id: number }) => trial.id);
		expect(await ids('')).to.deep.equal([6, 5, 4, 3, 2, 1]);
		expect(await ids('state=waiting')).to.deep.equal([6, 2]);
		expect(await ids('kind=same-page')).to.deep.equal([5]);
		expect(await ids('q=LARDER')).to.deep.equal([2]);
		expect(await ids('q=seed house')).to.deep.equal([2]);
		expect(await ids('site=with-chat.skerry-line.test')).to.deep.equal([1]);
		expect(await ids('verdict=undecided')).to.deep.equal([4]);
		expect(await ids('verdict=same')).to.include(1);
		expect(await ids('verdict=better')).to.deep.equal([]);
		expect(await ids('client=1')).to.deep.equal([6, 1]);
		expect((await call('GET', '/api/trials?page=9')).body).to.include({ total: 6, page: 1, pages: 1 });
	});

	it('gives the sheet as the page shows it', async () => {
		const { status, body } = await call('GET', '/api/trials/1/sheet?metric=tbt');
		expect(status).to.equal(200);
		expect(body).to.include({ metric: 'tbt', where: 'Trials › What does the chat cost on the timetable?' });
		expect(body.boards[0].answers[0].sentence).to.match(/^“With chat” and “Without chat” show no difference/);
		expect(body.excludedAnswer.loads[0].reason).to.equal('The site was being backed up');
		expect((await call('GET', '/api/trials/99/sheet')).status).to.equal(404);
	});

	it('marks differences as intended and takes the mark back', async () => {
		const toggle = async () => (await call('POST', '/api/trials/1/intend', { line: 'cache' })).body.intended;
		expect(await toggle()).to.deep.equal(['third-parties', 'cache']);
		expect(await toggle()).to.deep.equal(['third-parties']);
		expect((await call('POST', '/api/trials/1/intend', {})).status).to.equal(422);
	});

	it('notes what was changed between stages, and nothing where there are none', async () => {
		const change = { words: 'Larder 2.3', fileName: 'larder.json', file: '{}' };
		expect((await call('POST', '/api/trials/2/changes', change)).status).to.equal(201);
		expect((await call('GET', '/api/trials/2/sheet')).body.markers.at(-1)).to.include({
			stage: 1,
			words: 'Larder 2.3'
		});
		expect((await call('POST', '/api/trials/1/changes', change)).status).to.equal(409);
		expect((await call('POST', '/api/trials/2/changes', { words: ' ' })).status).to.equal(422);
	});

	it('writes down what an arm runs on', async () => {
		const setup = { components: [{ kind: 'plugin', name: 'Hushbox' }] };
		expect((await call('PUT', '/api/trials/1/arms/2/setup', setup)).status).to.equal(200);
		expect((await call('GET', '/api/trials/1')).body.arms[1].setup.components[0].name).to.equal('Hushbox');
		expect((await call('PUT', '/api/trials/1/arms/99/setup', setup)).status).to.equal(404);
	});

	it('asks for nudged loads of an arm, and of a load', async () => {
		const { body } = await call('POST', '/api/trials/1/arms/2/nudge');
		expect(body.singles).to.have.length(2);
		expect((await call('GET', `/api/singles/${body.singles[0]}`)).body).to.include({ status: 'queued' });
		expect((await call('POST', '/api/loads/5/nudge')).status).to.equal(202);
	});

	it('deletes a trial whole, and a load outside trials, but no load of a trial', async () => {
		expect((await call('DELETE', '/api/loads/5')).status).to.equal(409);
		expect((await call('DELETE', '/api/loads/88')).status).to.equal(204);
		expect((await call('DELETE', '/api/trials/1')).status).to.equal(204);
		expect((await call('DELETE', '/api/trials/1')).status).to.equal(404);
		expect((await call('GET', '/api/loads/5')).status).to.equal(404);
	});
});
