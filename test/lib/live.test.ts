import { expect } from 'chai';
import { setTimeout as pause } from 'node:timers/promises';

type Hear = (event: { data: string }) => void;

/** A stream of the server's, and a server that knows trial 4. */
function browser() {
	const own = globalThis as unknown as Record<string, unknown>;
	const before = {
		EventSource: own.EventSource,
		fetch: own.fetch,
		document: own.document,
		Notification: own.Notification
	};
	const listeners: Record<string, Hear> = {};
	const shown: string[] = [];
	let isClosed = false;
	own.EventSource = class {
		addEventListener = (name: string, hear: Hear) => void (listeners[name] = hear);
		close = () => void (isClosed = true);
	};
	own.fetch = (address: string) =>
		Promise.resolve({
			ok: address === '/api/trials/4',
			json: () => Promise.resolve({ question: 'Did the chat make it slower?' })
		});
	own.document = { hidden: true };
	own.Notification = class {
		static permission = 'granted';
		constructor(title: string, { body }: { body: string }) {
			shown.push(`${title}: ${body}`);
		}
	};
	return {
		shown,
		get isClosed() {
			return isClosed;
		},
		tell: (name: string, data: object = {}) => listeners[name]!({ data: JSON.stringify(data) }),
		end: () => Object.assign(own, before)
	};
}

const trials = (...states: [id: number, status: string, done?: number][]) => ({
	lab: { state: 'idle' },
	trials: states.map(([id, status, done = 0]) => ({ id, status, done, total: 8, timeLeftMs: 0 }))
});

describe('what the server tells open pages', () => {
	let outside: ReturnType<typeof browser>;
	let live: (typeof import('../../src/lib/live.svelte'))['live'];
	let stop: () => void;
	beforeEach(async () => {
		outside = browser();
		({ live } = await import('../../src/lib/live.svelte'));
		live.snapshot = null;
		live.notices = [];
		stop = live.listen();
	});
	afterEach(() => {
		stop();
		expect(outside.isClosed).to.equal(true);
		outside.end();
	});

	it('is the progress of each trial', () => {
		outside.tell('progress', trials([4, 'running', 3]));
		expect(live.progressOf(4)).to.deep.include({ status: 'running', done: 3 });
		expect(live.progressOf(5)).to.equal(null);
	});

	it('is told once when a trial came to rest, with its question, inside and outside of the page', async () => {
		outside.tell('progress', trials([4, 'running']));
		outside.tell('progress', trials([4, 'done', 8]));
		outside.tell('progress', trials([4, 'done', 8]));
		await pause(5);
		expect(live.notices).to.have.length(1);
		expect(live.notices[0]).to.deep.include({ id: 4, kind: 'success', question: 'Did the chat make it slower?' });
		expect(outside.shown).to.deep.equal(['A trial is done: Did the chat make it slower?']);
		live.putAway(4);
		expect(live.notices).to.deep.equal([]);
	});

	it('is no news where it rested before the page was opened', async () => {
		outside.tell('progress', trials([4, 'done', 8]));
		await pause(5);
		expect(live.notices).to.deep.equal([]);
	});

	it('keeps the newest notice of a trial, and tells of one whose question is not known', async () => {
		outside.tell('progress', trials([4, 'running'], [9, 'running']));
		outside.tell('progress', trials([4, 'waiting'], [9, 'failed']));
		await pause(5);
		outside.tell('progress', trials([4, 'running'], [9, 'failed']));
		outside.tell('progress', trials([4, 'done', 8], [9, 'failed']));
		await pause(5);
		expect(live.notices.map(({ id, kind, question }) => [id, kind, question])).to.deep.equal([
			[4, 'success', 'Did the chat make it slower?'],
			[9, 'error', '']
		]);
	});

	it('says when the server cannot be reached, until it answers again', () => {
		outside.tell('error');
		expect(live.isUnreachable).to.equal(true);
		outside.tell('open');
		expect(live.isUnreachable).to.equal(false);
		live.noteUnreachable();
		expect(live.isUnreachable).to.equal(true);
		outside.tell('progress', trials());
		expect(live.isUnreachable).to.equal(false);
	});
});
