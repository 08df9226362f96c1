import { expect } from 'chai';
import { startApp, type TestApp } from '../support/app';
import { processes } from '../support/processes';
import { until } from '../support/world';

const arms = [
	{ name: 'Without chat', url: 'https://skerry-line.test/timetable', baseline: true },
	{ name: 'With chat', url: 'https://with-chat.skerry-line.test/timetable' }
];
const trial = {
	question: 'Slower with the chat?',
	kind: 'side-by-side',
	arms,
	conditions: ['desktop'],
	rounds: 2,
	warmups: 0,
	seed: 3,
	lateLoads: false
};

const RUNNER = /processes\/runner\.mjs/;

describe('API and runner', () => {
	let app: TestApp;
	before(async () => (app = await startApp()));
	after(() => app.end());

	const finished = (id: number) =>
		until(async () => (await app.api('GET', `/api/trials/${id}`)).body.status === 'done', 250_000, `trial ${id} done`);

	it('answers bad input with 4xx, the path and words', async () => {
		const bad: [body: unknown, status: number, path: string][] = [
			['{ no json', 400, ''],
			[JSON.stringify({ question: 'x'.repeat(1_100_000) }), 413, ''],
			[{ ...trial, question: ' ' }, 422, 'question'],
			[{ ...trial, arms: [arms[0]] }, 422, 'arms'],
			[{ ...trial, rounds: 0 }, 422, 'rounds'],
			[{ ...trial, rounds: 500 }, 422, 'rounds'],
			[{ ...trial, conditions: ['watch'] }, 422, 'conditions.0'],
			[{ ...trial, arms: [arms[0], { name: 'B', url: 'javascript:alert(1)' }] }, 422, 'arms.1.url'],
			[[1], 422, '']
		];
		for (const [body, status, path] of bad) {
			const answer = await app.api('POST', '/api/trials', body);
			expect(answer.status, JSON.stringify(body).slice(0, 60)).to.equal(status);
			expect(answer.body.error.message).to.be.a('string');
			if (path) expect(answer.body.error.issues.map((issue: { path: string }) => issue.path)).to.include(path);
		}
		expect((await app.api('GET', '/api/trials/999')).status).to.equal(404);
		expect((await app.api('POST', '/api/trials/abc/start')).status).to.equal(404);
		expect((await app.api('GET', '/api/loads/1/har')).status).to.equal(404);
	});

	it('runs a trial to its answer, with evidence, CSV and HAR', async () => {
		const { status, body } = await app.api('POST', '/api/trials', trial);
		expect(status).to.equal(201);
		expect((await app.api('POST', `/api/trials/${body.id}/start`)).status).to.equal(202);
		expect(
			(await app.api('POST', `/api/trials/${body.id}/start`, {})).status,
			'a second press changes nothing'
		).to.equal(202);
		await finished(body.id);
		const answer = (await app.api('GET', `/api/trials/${body.id}`)).body;
		expect(answer.progress).to.deep.equal({ done: 4, total: 4 });
		expect(
			answer.loads.map((load: { status: string; reason: string | null }) => load.reason ?? load.status)
		).to.deep.equal(['ok', 'ok', 'ok', 'ok']);
		const wire = answer.results.find((result: { metric: string }) => result.metric === 'wire');
		expect(wire.shift.estimate, 'the chat adds bytes').to.be.above(5000);
		expect(wire.verdict, 'two rounds decide nothing').to.equal('undecided');
		const csv = (await app.api('GET', `/api/trials/${body.id}/loads.csv`)).body as string;
		expect(csv.trim().split('\r\n')).to.have.length(5);
		expect(csv).to.match(/^load,started,arm,url,conditions/);
		const har = (await app.api('GET', `/api/loads/${answer.loads[0].id}/har`)).body;
		expect(har.log.entries.length).to.be.above(3);
		expect((await app.api('GET', `/api/loads/${answer.loads[0].id}`)).body.format).to.equal('zafra-load');
		expect((await app.api('POST', `/api/trials/${body.id}/stop`)).status).to.equal(409);
	});

	it('tells listeners of progress by server-sent events', async () => {
		const stop = new AbortController();
		const response = await fetch(`${app.url}/api/events`, { signal: stop.signal });
		expect(response.headers.get('content-type')).to.equal('text/event-stream');
		const { value } = await response.body!.getReader().read();
		const text = new TextDecoder().decode(value);
		expect(text).to.match(/^event: progress\ndata: \{"lab":/);
		stop.abort();
	});

	it('counts failures and gives no verdict on an arm that mostly fails; the trial goes on', async () => {
		const { body } = await app.api('POST', '/api/trials', {
			...trial,
			arms: [arms[0], { name: 'Gone', url: 'https://skerry-line.test/gone' }],
			rounds: 1
		});
		await app.api('POST', `/api/trials/${body.id}/start`);
		await finished(body.id);
		const answer = (await app.api('GET', `/api/trials/${body.id}`)).body;
		expect(answer.loads.find((load: { status: string }) => load.status === 'failed').reason).to.match(/status 404/);
		expect(answer.results.every((result: { verdict: string }) => result.verdict === 'none')).to.equal(true);
	});

	it('loses no finished load when the runner or the whole app is killed, and goes on by itself', async () => {
		const { body } = await app.api('POST', '/api/trials', { ...trial, rounds: 3 });
		await app.api('POST', `/api/trials/${body.id}/start`);
		const done = async () => (await app.api('GET', `/api/trials/${body.id}`)).body.progress.done as number;
		await until(async () => (await done()) >= 1, 150_000, 'the first load');
		const [runner] = processes(RUNNER);
		process.kill(runner!, 'SIGKILL');
		await until(async () => (await done()) >= 3, 200_000, 'loads after the runner was killed');
		expect(processes(RUNNER)).to.have.length(1).and.not.include(runner);
		const before = (await app.api('GET', `/api/trials/${body.id}`)).body.loads.map((load: { id: number }) => load.id);
		await app.stop('SIGKILL');
		await app.restart();
		await finished(body.id);
		const answer = (await app.api('GET', `/api/trials/${body.id}`)).body;
		const places = answer.loads.map((load: { arm: number; round: number }) => `${load.arm}/${load.round}`);
		expect(places).to.have.length(6);
		expect(new Set(places).size, 'no load is counted twice').to.equal(6);
		expect(answer.loads.map((load: { id: number }) => load.id)).to.include.members(before);
	});

	it('says what to install when Chromium is missing', async () => {
		const bare = await startApp({ environment: { ZAFRA_CHROMIUM: '/nowhere/chromium' } });
		try {
			const { body } = await bare.api('GET', '/api/health');
			expect(body).to.include({ ok: false });
			expect(body.problem).to.include('apt-get install chromium');
			const desk = (await bare.api('GET', '/')).body as string;
			expect(desk).to.include('apt-get install chromium');
		} finally {
			await bare.end();
		}
	});

	it('says in words when its port is taken or a setting is wrong', async () => {
		const port = new URL(app.url).port;
		const fails = (environment: NodeJS.ProcessEnv) =>
			startApp({ environment }).then(
				() => expect.fail('it started'),
				(error: Error) => error.message
			);
		expect(await fails({ PORT: port })).to.include(`Port ${port} is taken`);
		expect(await fails({ ZAFRA_HOST_MAP: 'nonsense' })).to.include('ZAFRA_HOST_MAP');
	});
});
