import { expect } from 'chai';
import { lateFacts } from '$core/compare/late/facts';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { OUTAGE_SLOW_MS, type OutageKind } from '$core/load/journey/outage';
import type { LoadRecord } from '$core/load/record/record';
import { identityDifferences } from '$core/load/journey/identity';
import { PATIENCE } from '$core/load/record/limits';
import { Lab } from '../../src/lab/lab';
import { startDemoWeb, UNWATCHED, type RunningWorld } from '../support/world';

describe('a page that puts work off', function () {
	this.timeout(120_000);
	const desktop = { ...BUILT_IN_CONDITIONS[1]!, quietMs: 1000 };
	let web: RunningWorld;
	let lab: Lab;
	before(async () => {
		web = await startDemoWeb();
		lab = new Lab({ hostMap: web.rules, trustedKeys: [web.keyHash], calm: UNWATCHED });
	});
	after(async () => {
		await lab.close();
		web.close();
	});

	it('by a timer: nobody moves, and its chat comes 6.5 s after the load event', async () => {
		const url = 'https://later-chat.skerry-line.test/timetable';
		const { record } = await lab.measure({ url, conditions: desktop, steps: [], patience: true });
		expect(record.status, record.failure?.message).to.equal('ok');
		const { postponed, figures } = record;
		expect(postponed!.firstMs).to.be.within(figures.onload! + 6400, figures.onload! + 9500);
		expect(postponed!.untilMs - postponed!.fromMs).to.be.within(PATIENCE.leastMs, PATIENCE.mostMs + 1000);
		// The chat's own script, its greeting, 27 parts and a picture.
		expect(postponed!.requests).to.be.at.least(30);
		expect(postponed!.figuresWith.wire! - figures.wire!).to.equal(postponed!.wireBytes);
		const late = record.requests.filter(({ during }) => during === 'patience');
		expect(new Set(late.map(({ host }) => host))).to.deep.equal(new Set(['parlour-bell.test']));
		expect(record.requests.some(({ host, during }) => host === 'parlour-bell.test' && during === 'load')).to.equal(
			false
		);
		expect(lateFacts(record)).to.include({ kind: 'postponed', requests: postponed!.requests });
	});

	it('or fills its cache first: a cold load is asked for after the cache was emptied', async () => {
		const host = 'https://with-larder.skerry-line.test';
		const load = async (method: string | null) => {
			const purge = method === null ? null : { method, url: `${host}/larder/purge` };
			const { record } = await lab.measure({ url: `${host}/contact`, conditions: desktop, steps: [], purge });
			const [, cache] = record.requests[0]?.responseHeaders.find(([name]) => name === 'x-cache') ?? [];
			return { cache, failure: record.failure };
		};
		await load(null);
		expect((await load(null)).cache).to.equal('HIT');
		expect((await load('POST')).cache).to.equal('MISS');
		// A call that is refused makes no cold load.
		expect((await load('GET')).failure?.message).to.match(/could not be emptied: GET .* answered 405/);
	});

	it('or serves a test otherwise than a visitor', async () => {
		const url = 'https://sniffing.skerry-line.test/timetable';
		const load = async (asVisitor: boolean) =>
			(await lab.measure({ url, conditions: desktop, steps: [], asVisitor })).record;
		const [asLab, asVisitor] = [await load(false), await load(true)];
		const differences = identityDifferences(asLab, asVisitor).map(({ code, visitor }) => [code, visitor]);
		expect(differences).to.deep.include(['hosts-new', 'parlour-bell.test, stilewatch.test']);
		expect(asVisitor.environment.userAgent).not.to.match(/Headless/);
	});

	it('and stands or falls with an outside service that is late, refuses, or never answers', async () => {
		const hosts = ['parlour-bell.test'];
		const url = 'https://with-chat.skerry-line.test/timetable';
		const load = async (how: OutageKind | null) =>
			(await lab.measure({ url, conditions: { ...desktop, capMs: 9000 }, steps: [], outage: how && { hosts, how } }))
				.record;
		const chat = ({ requests }: LoadRecord) => requests.filter(({ host }) => host === hosts[0]);
		const tookMs = ({ startMs, responseMs }: LoadRecord['requests'][number]) => responseMs! - startMs;
		const [slow, usual] = [await load('slow'), await load(null)];
		// The delay is the least that an answer takes; how much more depends on the machine and is not asserted.
		expect(tookMs(chat(slow)[0]!)).to.be.at.least(OUTAGE_SLOW_MS);
		for (const quick of [slow.requests[0]!, chat(usual)[0]!]) expect(tookMs(quick)).to.be.below(OUTAGE_SLOW_MS);
		const refused = await load('refused');
		expect(refused.status).to.equal('ok');
		expect(chat(refused).map(({ failed }) => failed)).to.satisfy((all: (string | null)[]) => all.every(Boolean));
		// Its script is asynchronous, and yet the load event waits for it for ever.
		const silent = await load('silent');
		expect(silent.failure?.code).to.equal('time-out');
		expect(silent.frames.length).to.be.above(0);
	});

	it('until an interaction: the same chat, held by a plugin', async () => {
		const url = 'https://hushed.skerry-line.test/timetable';
		const conditions = { ...desktop, input: 'nudge' as const };
		const { record } = await lab.measure({ url, conditions, steps: [] });
		expect(record.status, record.failure?.message).to.equal('ok');
		expect(record.postponed).to.equal(null);
		expect(record.heldBack!.requests).to.be.at.least(30);
		expect(lateFacts(record)!.hosts.find(({ host }) => host === 'parlour-bell.test')).to.include({ loadRequests: 0 });
	});
});
