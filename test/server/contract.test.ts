/**
 * The API's calls on one data folder, as recorded before the house was rebuilt: the same structure, the same values.
 * `ZAFRA_RECORD=contract` writes what is answered now, for a call that is new.
 */
import { expect } from 'chai';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { startApp, type TestApp } from '../support/app';
import { placeDatabase } from '../support/databases';
import { deriveAllIn } from '../support/derive';

const FILE = 'test/server/contract.json';
const RECORD = process.env.ZAFRA_RECORD === 'contract';

type Call = [name: string, method: 'GET' | 'POST' | 'PATCH', path: string, body?: unknown];

const ARMS = [
	{ name: 'A', url: 'https://orrery-hall.test/a', baseline: true },
	{ name: 'B', url: 'https://orrery-hall.test/b' }
];
const NEW_TRIAL = {
	question: 'Is B lighter?',
	kind: 'side-by-side',
	arms: ARMS,
	conditions: ['desktop', 'staging'],
	rounds: 2,
	warmups: 0,
	seed: 4
};
const HAR = {
	log: {
		version: '1.2',
		creator: { name: 'x', version: '1' },
		pages: [{ id: 'p', startedDateTime: '2026-11-01T10:00:00.000Z', title: 't', pageTimings: { onLoad: 700 } }],
		entries: [
			{
				pageref: 'p',
				startedDateTime: '2026-11-01T10:00:00.000Z',
				time: 300,
				request: {
					method: 'GET',
					url: 'https://orrery-hall.test/',
					httpVersion: 'h2',
					headers: [],
					queryString: [],
					cookies: [],
					headersSize: -1,
					bodySize: 0
				},
				response: {
					status: 200,
					statusText: 'OK',
					httpVersion: 'h2',
					headers: [],
					cookies: [],
					content: { size: 900, mimeType: 'text/html' },
					redirectURL: '',
					headersSize: 100,
					bodySize: 400
				},
				cache: {},
				timings: { send: 1, wait: 200, receive: 99 }
			}
		]
	}
};

/** The client that the calls make. */
const CLIENT = 4;

/** In this order, on schema 4's database without a lab: reading first, then what changes something. */
const CALLS: Call[] = [
	['health', 'GET', '/api/health'],
	['conditions', 'GET', '/api/conditions'],
	['a trial that is done', 'GET', '/api/trials/1'],
	['its evidence', 'GET', '/api/trials/1/evidence'],
	['its loads as CSV', 'GET', '/api/trials/1/loads.csv'],
	['a difference picture', 'GET', '/api/trials/1/pictures/desktop-2'],
	['a trial between stages', 'GET', '/api/trials/2'],
	['a draft', 'GET', '/api/trials/3'],
	['a stopped trial', 'GET', '/api/trials/4'],
	['one page twice', 'GET', '/api/trials/5'],
	['a paused trial', 'GET', '/api/trials/6'],
	['no such trial', 'GET', '/api/trials/99'],
	['a load', 'GET', '/api/loads/5'],
	['its HAR', 'GET', '/api/loads/5/har'],
	['what is known of an address', 'GET', '/api/loads/figures?url=https%3A%2F%2Fnobody.test%2F'],
	['a request of it', 'GET', '/api/loads/5/requests/2'],
	['a frame', 'GET', '/api/loads/5/frames/2'],
	['a frame that is not there', 'GET', '/api/loads/5/frames/9'],
	['a finished page', 'GET', '/api/loads/5/picture'],
	['no step picture', 'GET', '/api/loads/5/step-picture'],
	['a load from a HAR', 'GET', '/api/loads/88'],
	['no such load', 'GET', '/api/loads/999'],
	['a new trial', 'POST', '/api/trials', NEW_TRIAL],
	['a new trial with faults', 'POST', '/api/trials', { ...NEW_TRIAL, question: '', rounds: 0, arms: [ARMS[0]] }],
	['a new trial under unknown conditions', 'POST', '/api/trials', { ...NEW_TRIAL, conditions: ['tablet'] }],
	['the new trial, read back', 'GET', '/api/trials/7'],
	['start', 'POST', '/api/trials/7/start'],
	['pause', 'POST', '/api/trials/7/pause'],
	['pause again', 'POST', '/api/trials/7/pause'],
	['resume', 'POST', '/api/trials/7/resume'],
	['stop', 'POST', '/api/trials/7/stop'],
	['stop a draft', 'POST', '/api/trials/3/stop'],
	['a stage that is not next', 'POST', '/api/trials/2/start', { stage: 0 }],
	['the next stage', 'POST', '/api/trials/2/start', { stage: 1 }],
	['rounds added', 'POST', '/api/trials/1/rounds', { rounds: 2 }],
	['too many rounds added', 'POST', '/api/trials/5/rounds', { rounds: 900 }],
	['repeat', 'POST', '/api/trials/5/repeat'],
	['the repeat, read back', 'GET', '/api/trials/8'],
	['read', 'POST', '/api/trials/5/read'],
	['exclude', 'POST', '/api/loads/43/exclude', { reason: 'a backup ran' }],
	['exclude without a reason', 'POST', '/api/loads/43/exclude', { reason: ' ' }],
	['restore', 'POST', '/api/loads/6/restore'],
	[
		'a load outside a trial',
		'POST',
		'/api/loads',
		{ url: 'https://orrery-hall.test/', conditions: 'phone', nudge: true }
	],
	['a load of no address', 'POST', '/api/loads', { url: 'orrery', conditions: 'phone' }],
	['a HAR', 'POST', '/api/loads/har', HAR],
	['a file that is no HAR', 'POST', '/api/loads/har', { log: {} }],
	['the trial with rounds added', 'GET', '/api/trials/1'],
	['a client', 'POST', '/api/clients', { name: 'Orrery Hall of the contract' }],
	['a client without a name', 'POST', '/api/clients', { name: '' }],
	['a site', 'POST', '/api/sites', { clientId: CLIENT, host: 'orrery-hall.test', name: 'Orrery Hall', role: 'own' }],
	['pages', 'POST', '/api/pages', { siteId: 7, addresses: ['https://orrery-hall.test/', 'no address'] }],
	['the pages, read back', 'GET', '/api/pages?site=7'],
	['a marker', 'POST', '/api/markers', { siteId: 7, day: '2026-11-02', kind: 'release', words: 'New frame' }],
	['a marker without a day', 'POST', '/api/markers', { siteId: 7, kind: 'release', words: 'New frame' }],
	['markers', 'GET', '/api/markers?site=7'],
	['a watch', 'POST', '/api/watches', { clientId: CLIENT, name: 'Pages that sell', pages: [1] }],
	['a watch of no page', 'POST', '/api/watches', { clientId: CLIENT, name: 'Nothing', pages: [99] }],
	['the watch, read back', 'GET', '/api/watches/1'],
	['a page of it', 'GET', '/api/watches/1/pages/1'],
	['a reading', 'POST', '/api/watches/1/read'],
	['a reading while one is under way', 'POST', '/api/watches/1/read'],
	['its readings as CSV', 'GET', '/api/watches/1/readings.csv'],
	['no such watch', 'GET', '/api/watches/9'],
	['a standing without a competitor', 'POST', '/api/standings', { clientId: CLIENT, name: 'Home pages', pages: [1] }],
	['standings', 'GET', '/api/standings'],
	['a report', 'POST', '/api/reports', { trial: 1 }],
	['a report of no trial', 'POST', '/api/reports', { trial: 99 }],
	['a version before it is said who pays', 'POST', '/api/reports/1/versions'],
	['a load to set beside a figure from elsewhere', 'POST', '/api/reports/1/nearest', { trial: 1, device: 'watch' }],
	['a link to no version', 'POST', '/api/reports/1/versions/1/shares', {}],
	['no such report', 'GET', '/api/reports/9'],
	['the agency', 'GET', '/api/agency'],
	['the agency’s name', 'PATCH', '/api/agency', { name: 'Quillmere Digital' }],
	['visits of no site', 'GET', '/api/visits/9']
];

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
	'postponed',
	'vanished',
	'visitor',
	'inline',
	'stepShown',
	'stepQuiet',
	'shown',
	'signature'
];

/** Moments of this run, and ids that the queue gives out, are not part of the contract. */
function steady(name: string, body: unknown, began: number): unknown {
	const text = JSON.stringify(body, (key, value: unknown) => {
		if (ADDED.includes(key)) return undefined;
		if (key === 'seed' && name.startsWith('the repeat')) return '(drawn)';
		if (key === 'id' && name === 'a load outside a trial') return '(queued)';
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
