import { expect } from 'chai';
import { EventEmitter } from 'node:events';
import { createAdmission, turnOf, type Answering, type Limits } from '../../scripts/admission.mjs';

/** Stands for the answer to one request. */
class Answer extends EventEmitter implements Answering {
	status = 0;
	headers: Record<string, string> = {};
	body = '';
	destroyed = false;
	writeHead(status: number, headers: Record<string, string> = {}): this {
		this.status = status;
		this.headers = headers;
		return this;
	}
	end(body = ''): void {
		this.body = body;
	}
}

const turn = () => new Promise((next) => setImmediate(next));
async function turns(count: number): Promise<void> {
	for (let i = 0; i < count; i++) await turn();
}

describe('what web takes on at once', () => {
	let now = 0;
	let log: string[] = [];
	/** What is to be done later: done when the test says so. */
	let later: (() => void)[] = [];
	const begin = (limits: Partial<Limits> = {}) => {
		now = 0;
		log = [];
		later = [];
		return createAdmission(limits, { now: () => now, after: (_ms, work) => void later.push(work) });
	};

	it('makes a few pages at a time, first come first served', async () => {
		const admission = begin({ pagesAtOnce: 2 });
		const answers = ['a', 'b', 'c', 'd'].map((name) => {
			const answer = new Answer();
			admission.page(answer, () => log.push(name));
			return answer;
		});
		expect(log, 'nothing is begun where it comes in').to.deep.equal([]);
		await turns(5);
		expect(log).to.deep.equal(['a', 'b']);
		answers[1]!.writeHead(200);
		await turns(5);
		expect(log).to.deep.equal(['a', 'b', 'c']);
		// Its reader went away before an answer: its place is free too.
		answers[0]!.emit('close');
		await turns(5);
		expect(log).to.deep.equal(['a', 'b', 'c', 'd']);
		expect(answers[1]!.status).to.equal(200);
	});

	it('takes beacons first, however many pages wait', async () => {
		const admission = begin({ pagesAtOnce: 1 });
		for (let i = 0; i < 5; i++) admission.page(new Answer(), () => log.push('page'));
		for (let i = 0; i < 3; i++) admission.beacon(new Answer(), () => log.push('beacon'));
		await turns(5);
		expect(log).to.deep.equal(['beacon', 'beacon', 'beacon', 'page']);
	});

	it('turns away at once who would find no place, and says when to come again', () => {
		const admission = begin({ pagesWaiting: 2, beaconsAtOnce: 1 });
		const answers = [1, 2, 3].map(() => new Answer());
		for (const answer of answers) admission.page(answer, () => undefined);
		expect(answers.map(({ status }) => status)).to.deep.equal([0, 0, 503]);
		expect(answers[2]!.headers['retry-after']).to.match(/^\d+$/);
		expect(answers[2]!.body).to.include('try again');
		const beacons = [new Answer(), new Answer()];
		for (const answer of beacons) admission.beacon(answer, () => undefined);
		expect(beacons.map(({ status }) => status)).to.deep.equal([0, 503]);
	});

	it('makes no page whose reader has waited too long, or has gone', async () => {
		const admission = begin({ pagesAtOnce: 1, longestWaitMs: 100 });
		const [first, late, gone, fresh] = [new Answer(), new Answer(), new Answer(), new Answer()];
		admission.page(first, () => log.push('first'));
		await turns(3);
		admission.page(late, () => log.push('late'));
		now = 150;
		admission.page(gone, () => log.push('gone'));
		gone.destroyed = true;
		admission.page(fresh, () => log.push('fresh'));
		first.writeHead(200);
		await turns(5);
		expect(late.status).to.equal(503);
		first.emit('close');
		await turns(5);
		expect(log).to.deep.equal(['first', 'fresh']);
	});

	it('lets no page that waits for another thread hold up the others', async () => {
		const admission = begin({ pagesAtOnce: 1 });
		const slow = new Answer();
		admission.page(slow, () => log.push('slow'));
		admission.page(new Answer(), () => log.push('next'));
		await turns(3);
		expect(log).to.deep.equal(['slow']);
		later.shift()!();
		await turns(3);
		expect(log).to.deep.equal(['slow', 'next']);
		// Its own answer, when it comes at last, frees no second place.
		slow.writeHead(200);
		admission.page(new Answer(), () => log.push('third'));
		await turns(3);
		expect(log).to.deep.equal(['slow', 'next']);
	});

	it('hears all who have connected before it makes the next page, and does not listen for ever', async () => {
		const admission = begin({ pagesAtOnce: 1 });
		admission.page(new Answer(), () => log.push('page'));
		for (let i = 0; i < 20; i++) {
			admission.connected();
			await turn();
		}
		expect(log, 'others were still coming').to.deep.equal([]);
		await turns(3);
		expect(log).to.deep.equal(['page']);
		const patient = begin({ pagesAtOnce: 1 });
		patient.page(new Answer(), () => log.push('page'));
		for (let i = 0; i < 300; i++) {
			patient.connected();
			await turn();
		}
		expect(log).to.deep.equal(['page']);
	});

	it('knows what waits for a turn: pages and figures do, files of the build and streams do not', () => {
		const of = (url: string, method = 'GET') => turnOf({ url, method }, false);
		for (const url of ['/', '/trials?page=2', '/api/trials/3', '/r/token']) expect(of(url), url).to.equal('page');
		for (const url of [
			'/_app/immutable/a.js',
			'/api/events',
			'/mark.svg',
			'/control/index.html',
			'/api/loads/3/frames/12',
			'/r/token/pictures/frame/1/2'
		])
			expect(of(url), url).to.equal('none');
		expect(of('/api/trials', 'POST')).to.equal('none');
		expect(turnOf({ url: '/visit', method: 'POST' }, true)).to.equal('beacon');
	});
});
