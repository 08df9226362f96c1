import { expect } from 'chai';
import { OUTAGE_KINDS } from '$core/load/journey/outage';
import { TAP_MOMENTS } from '$core/load/journey/tap';
import {
	requestAsVisitor,
	requestNudge,
	requestOutages,
	requestPatience,
	requestTaps,
	storeRequestedLoad
} from '../../src/lib/server/rooms/loads/commands';
import { countLoneLoads, loneLoads } from '../../src/lib/server/rooms/loads/queries/loads';
import { againRequests, findRequest, requestedOrder } from '../../src/lib/server/rooms/loads/requested';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { loadHead, openedParts } from '../../src/lib/server/rooms/loads/view';
import { finishJob, leaseJob } from '../../src/lib/server/base/queue/jobs';
import { measuredLoad, refusal, useQueue } from '../support/queue';
import { requestOf, type recordOf } from '../support/records';

type Known = Parameters<typeof recordOf>[0];

describe('the page of a load, asked again', () => {
	const q = useQueue();
	const page: Known = {
		status: 'ok',
		url: 'http://b.test/x',
		finalUrl: 'http://b.test/x',
		figures: { start: 500, lcp: 900 },
		requests: [
			requestOf({ url: 'http://b.test/x', type: 'document' }),
			requestOf({ url: 'https://chat.test/bell.js' }),
			requestOf({ url: 'https://count.test/c.js' })
		]
	};
	/** A load of a trial, whose record is `page`. */
	const load = (candidate: Known = page) => {
		q.now.make({ rounds: 1 });
		return q.now.finish(q.now.lease()!, candidate);
	};
	/** Work the queue through; each load is what the test says of its order. */
	const measure = (knownOf: (order: ReturnType<typeof requestedOrder>) => Known) => {
		for (let job = leaseJob(q.now.db, 'me'); job; job = leaseJob(q.now.db, 'me')) {
			finishJob(q.now.db, job, 'me');
			if (job.kind !== 'load' || job.slot) continue;
			const order = requestedOrder(q.now.db, job);
			storeRequestedLoad(q.now.db, { job, version: order.version, measured: measuredLoad(knownOf(order)) });
		}
	};
	const shown = (id: number) => ({
		...loadHead(q.now.db, id, (trialId) => findTrial(q.now.db, trialId))!,
		...openedParts(q.now.db, id, ['checks']).checks!
	});
	const finding = (id: number, part: string) => shown(id).parts.find((view) => view.id === part)!.finding;

	it('is asked as its load was, patiently or with an interaction, on behalf of its variant', () => {
		const id = load();
		const [patient, nudged] = [requestPatience, requestNudge].map((ask) => findRequest(q.now.db, ask(q.now.db, id))!);
		expect(patient).to.include({ url: 'http://b.test/x', patience: true });
		expect(nudged!.conditions.input).to.equal('nudge');
		expect(patient!.armId).to.equal(q.now.loads(1)[0]!.armId);
	});

	it('is loaded with each outside service failing in each way, ranked by what it does', () => {
		const id = load();
		// What nobody has asked for stands together in one line.
		expect(finding(id, 'checks')).to.equal(
			'Not run yet: 2 outside services down; taps while it loads; what a visitor is served'
		);
		expect(requestOutages(q.now.db, id)).to.have.length(2 * OUTAGE_KINDS.length);
		expect(finding(id, 'outages')).to.equal('Loads that check it wait for the lab');
		expect(finding(id, 'checks')).to.equal('Not run yet: taps while it loads; what a visitor is served');
		// The chat holds the page up when it is late, and the page never appears when it is silent.
		measure(({ outage }) => {
			const isChat = outage!.hosts.includes('chat.test');
			if (isChat && outage!.how === 'silent') return { ...page, figures: { start: null, lcp: null } };
			return { ...page, figures: { start: isChat && outage!.how === 'slow' ? 3500 : 510, lcp: 900 } };
		});
		const { results, waiting } = shown(id).outages;
		expect(waiting).to.equal(0);
		expect(results.slice(0, 2).map(({ service, how }) => `${service} ${how}`)).to.deep.equal([
			'chat.test silent',
			'chat.test slow'
		]);
		expect(finding(id, 'outages')).to.equal('chat.test silent: the page was not shown or no longer worked');
	});

	it('says of outages that change nothing how near to usual rendering began, and of unknown ones that', () => {
		const [quiet, blind] = [load(), load({ ...page, figures: { start: null } })];
		for (const id of [quiet, blind]) requestOutages(q.now.db, id);
		measure(() => ({ ...page, figures: { start: 520, lcp: 900 } }));
		expect(finding(quiet, 'outages')).to.equal(
			'In one load each, rendering began within half a second of usual, whichever failed'
		);
		expect(finding(blind, 'outages')).to.match(/when it began to render is not known$/);
	});

	it('has nothing to strike where it asks nobody', () => {
		const id = load({ ...page, requests: page!.requests!.slice(0, 1) });
		expect(refusal(() => requestOutages(q.now.db, id))).to.match(/^409 This page asks no outside service/);
		expect(shown(id).parts.some((part) => part.id === 'outages')).to.equal(false);
	});

	it('is asked as a visitor, and what is served otherwise is counted', () => {
		const id = load();
		requestAsVisitor(q.now.db, id);
		expect(finding(id, 'identity')).to.equal('The load that checks it waits for the lab');
		measure(({ asVisitor }) => {
			expect(asVisitor).to.equal(true);
			return { ...page, requests: [...page!.requests!, requestOf({ url: 'https://ads.test/a.js' })] };
		});
		expect(shown(id).identity.differences).to.deep.equal(['Only the visitor’s page asks ads.test.']);
		expect(finding(id, 'identity')).to.equal('One difference, in one load each');
	});

	it('is pressed at three moments, in their order', () => {
		const id = load();
		expect(requestTaps(q.now.db, id, { selector: '#menu', effect: 'Timetable', effectIs: 'text' })).to.have.length(3);
		measure(({ tap }) => ({
			...page,
			tap: {
				selector: tap!.selector,
				afterMs: tap!.afterMs,
				atMs: 600 + tap!.afterMs,
				state: 'there',
				movedPx: 0,
				effectMs: tap!.afterMs ? 90 : null,
				responseMs: 30
			}
		}));
		const { results } = shown(id).taps;
		expect(results.map(({ afterMs, verdict }) => [afterMs, verdict])).to.deep.equal(
			TAP_MOMENTS.map((afterMs) => [afterMs, afterMs ? 'works' : 'lost'])
		);
		expect(finding(id, 'taps')).to.equal('2 of 3 presses had their effect at once');
	});

	it('stands with the load it is about, not in the list of loads', () => {
		const id = load();
		requestAsVisitor(q.now.db, id);
		measure(() => page);
		expect(againRequests(q.now.db, id, 'asVisitor')).to.have.length(1);
		expect(againRequests(q.now.db, id, 'outage')).to.deep.equal([]);
		expect(loneLoads(q.now.db, { clientId: null }, 10, 0)).to.deep.equal([]);
		expect(countLoneLoads(q.now.db, { clientId: null })).to.equal(0);
	});
});
