/**
 * The API's calls on one data folder, as recorded before the house was rebuilt: the same structure, the same values.
 * `ZAFRA_RECORD=contract` writes what is answered now, for a call that is new.
 */
import { expect } from 'chai';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { startApp, type TestApp } from '../support/app';
import { placeDatabase } from '../support/databases';
import { CALLS, type Call } from '../support/contractCalls';
import { deriveAllIn } from '../support/derive';
import { routeTargets } from '../support/routeTree';

const FILE = 'test/server/contract.json';
const RECORD = process.env.ZAFRA_RECORD === 'contract';

interface Answer {
	status: number;
	type: string;
	body: unknown;
}

/** Fields that came since: whoever reads the recorded ones misses nothing. */
const ADDED = [
	'calm',
	'paths',
	'switches',
	'selectors',
	'tap',
	'survey',
	'sideChecks',
	'sentBytes',
	'cookieBytes',
	'postponed',
	'vanished',
	'visitor',
	'inline',
	'stepShown',
	'stepQuiet',
	'shown',
	'signature',
	// Of sheets and lists.
	'settling',
	'spans',
	'sweep',
	'stepEvidence',
	'savings',
	'field',
	'moveOn',
	'way',
	'rewriting',
	'twin',
	'rehearses'
];

/** Moments of this run, and ids that the queue gives out, are not part of the contract. */
function steady(name: string, body: unknown, began: number): unknown {
	const text = JSON.stringify(body, (key, value: unknown) => {
		if (ADDED.includes(key)) return undefined;
		if (key === 'seed' && name.startsWith('the repeat')) return '(drawn)';
		if (key === 'id' && name === 'a load outside a trial') return '(queued)';
		if (name === 'the lab' && (key === 'hours' || key === 'machine')) return '(of this machine)';
		if (typeof value === 'string' && /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(value) && Date.parse(value) >= began)
			return '(now)';
		return value;
	});
	return JSON.parse(text);
}

async function ask(app: TestApp, [name, method, path, body]: Call, began: number): Promise<Answer> {
	const response = await fetch(app.url + path, {
		method,
		...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
	});
	const type = response.headers.get('content-type') ?? '';
	const bytes = Buffer.from(await response.arrayBuffer());
	const read = /json/.test(type)
		? steady(name, JSON.parse(bytes.toString()), began)
		: /^text/.test(type)
			? bytes.toString()
			: createHash('sha256').update(bytes).digest('hex');
	return { status: response.status, type, body: read };
}

/** As schema 4 left it, brought forward, with all that a lab would have derived since. */
async function placeOldData(folder: string): Promise<void> {
	placeDatabase(4, folder);
	await deriveAllIn(folder);
}

/** A line a call, so that a change is seen as one. */
function writeRecorded(all: Record<string, Answer>): void {
	const lines = Object.entries(all).map(([name, answer]) => `${JSON.stringify(name)}: ${JSON.stringify(answer)}`);
	writeFileSync(FILE, `{\n${lines.join(',\n')}\n}\n`);
}

describe('the API’s contract', function () {
	this.timeout(120_000);
	let app: TestApp;
	const began = Date.now();
	const answers: Record<string, Answer> = {};
	const recorded = existsSync(FILE) ? (JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, Answer>) : {};
	before(async () => {
		app = await startApp({ environment: { ZAFRA_RUNNER: 'off' }, prepare: placeOldData });
		for (const call of CALLS) answers[call[0]] = await ask(app, call, began);
		if (RECORD) writeRecorded({ ...answers, ...recorded });
	});
	after(() => app.end());

	for (const [name, method, path] of CALLS)
		it(`${name}: ${method} ${path}`, () => expect(answers[name]).to.deep.equal((RECORD ? answers : recorded)[name]));

	it('has a call for every endpoint of the route tree', () => {
		/** Answers without end: its own test is below. */
		const STREAM = '/api/events';
		const targets = routeTargets().filter(({ action, route }) => action === null && route !== STREAM);
		const isCalled = ({ route, method }: { route: string; method: string }) => {
			const pattern = new RegExp(`^${route.replace(/\[(\.\.\.)?\w+\]/g, '[^/]+')}$`);
			return CALLS.some(([, used, path]) => used === method && pattern.test(path.split('?')[0]!));
		};
		expect(
			targets.filter((target) => !isCalled(target)).map(({ method, route }) => `${method} ${route}`)
		).to.deep.equal([]);
	});

	it('tells the queued load by its id, then where its load is', async () => {
		const asked = await app.api('POST', '/api/loads', { url: 'https://orrery-hall.test/x', conditions: 'desktop' });
		const told = await app.api('GET', `/api/singles/${asked.body.id}`);
		expect(told.body).to.deep.equal({
			id: asked.body.id,
			url: 'https://orrery-hall.test/x',
			status: 'queued',
			loadId: null
		});
	});

	it('sends pages compressed, unless they are asked for as they are', async () => {
		const response = await fetch(app.url, { headers: { 'accept-encoding': 'gzip' } });
		expect(response.headers.get('content-encoding')).to.equal('gzip');
		expect(response.headers.get('vary')).to.match(/accept-encoding/i);
		// RFC 9110, 12.5.3: a quality of 0 is a refusal.
		for (const accepted of ['identity', 'gzip;q=0']) {
			const plain = await fetch(app.url, { headers: { 'accept-encoding': accepted } });
			expect(plain.headers.get('content-encoding'), accepted).to.equal(null);
		}
	});

	it('sends the progress of trials and the lab to listeners', async () => {
		const stop = new AbortController();
		const response = await fetch(`${app.url}/api/events`, { signal: stop.signal });
		const { value } = await response.body!.getReader().read();
		stop.abort();
		const [head, data] = Buffer.from(value!).toString().trim().split('\n');
		const told = JSON.parse(data!.slice('data: '.length)) as { lab: object; trials: object[] };
		expect([response.headers.get('content-type'), head]).to.deep.equal(['text/event-stream', 'event: progress']);
		expect(told.lab).to.have.keys(
			'state',
			'problem',
			'unprotected',
			'trialId',
			'question',
			'doing',
			'timeLeftMs',
			'isGathering'
		);
		expect(told.trials[0]).to.have.keys('id', 'status', 'done', 'total', 'timeLeftMs');
	});
});
