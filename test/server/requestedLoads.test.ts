import { expect } from 'chai';
import { BUILT_IN_CONDITIONS, withoutSecrets } from '$core/load/conditions/conditions';
import { deleteConditions } from '../../src/lib/server/rooms/conditions/commands';
import { saveConditions } from '../../src/lib/server/rooms/conditions/queries/saved';
import {
	deleteLoad,
	importHar,
	requestLoad,
	requestNudge,
	storeRequestedLoad
} from '../../src/lib/server/rooms/loads/commands';
import {
	countRequests,
	findRequest,
	requestedOrder,
	requestsOfTrial
} from '../../src/lib/server/rooms/loads/requested';
import { createTrial, nudgeArm } from '../../src/lib/server/rooms/trials/commands';
import { finishJob, giveBack, leaseJob } from '../../src/lib/server/base/queue/jobs';
import { measuredLoad, refusal, trialInput, useQueue } from '../support/queue';

describe('loads outside trials', () => {
	const q = useQueue();

	it('are asked for, leased before the rounds of trials, stored once, and found by their job', () => {
		q.now.make();
		const id = requestLoad(q.now.db, { url: 'http://a.test', conditions: 'phone', nudge: true });
		expect(findRequest(q.now.db, id)).to.deep.include({ url: 'http://a.test/', status: 'queued', loadId: null });
		const job = leaseJob(q.now.db, 'me')!;
		expect(job).to.deep.include({ id, kind: 'load', subject: { kind: 'nobody', id: 0 }, slot: null });
		expect(countRequests(q.now.db)).to.deep.equal({ open: 1, leased: 1, newest: 0 });
		const { version, ...order } = requestedOrder(q.now.db, job);
		expect(order.conditions).to.include({ id: 'phone', input: 'nudge' });
		giveBack(q.now.db, 'me');
		expect(leaseJob(q.now.db, 'another')).to.include({ id, attempts: 2 });
		expect(finishJob(q.now.db, job, 'me')).to.equal(false);
		expect(finishJob(q.now.db, job, 'another')).to.equal(true);
		const loadId = storeRequestedLoad(q.now.db, { job, version, measured: measuredLoad() });
		expect(findRequest(q.now.db, id)).to.deep.include({ status: 'done', loadId });
		expect(() => storeRequestedLoad(q.now.db, { job, version, measured: measuredLoad() })).to.throw(/UNIQUE/);
		const unknown = refusal(() => requestLoad(q.now.db, { url: 'http://a.test', conditions: 'tablet' }));
		expect(unknown).to.match(/^422 Unknown conditions/);
	});

	it('are nudged again under their own frozen conditions, secrets and all', () => {
		const headers = [{ name: 'X-Preview', value: 'hush-hush' }];
		saveConditions(q.now.db, { ...BUILT_IN_CONDITIONS[1]!, id: 'staging', name: 'Staging', headers });
		requestLoad(q.now.db, { url: 'http://a.test', conditions: 'staging' });
		const job = leaseJob(q.now.db, 'me')!;
		const { version, conditions } = requestedOrder(q.now.db, job);
		const measured = measuredLoad({ url: 'http://a.test/', conditions: withoutSecrets(conditions) });
		const loadId = storeRequestedLoad(q.now.db, { job, version, measured });
		deleteConditions(q.now.db, 'staging');
		const again = findRequest(q.now.db, requestNudge(q.now.db, loadId))!;
		expect(again.conditions).to.deep.include({ input: 'nudge', headers, name: 'Staging' });
	});

	it('are deleted with all their files; those of a trial are not', () => {
		requestLoad(q.now.db, { url: 'http://a.test', conditions: 'phone' });
		const job = leaseJob(q.now.db, 'me')!;
		const load = storeRequestedLoad(q.now.db, {
			job,
			version: requestedOrder(q.now.db, job).version,
			measured: measuredLoad({}, Buffer.from('x'))
		});
		q.now.make();
		const ofTrial = q.now.finish(q.now.lease()!);
		expect(refusal(() => deleteLoad(q.now.db, ofTrial))).to.match(/^409 .*part of a trial/);
		deleteLoad(q.now.db, load);
		expect(q.now.value('SELECT count(*) FROM artifact')).to.equal(1);
		expect(refusal(() => deleteLoad(q.now.db, load))).to.match(/^404/);
	});

	it('for a trial’s arm use the trial’s frozen conditions and never count in it', () => {
		const trial = createTrial(q.now.db, trialInput({ conditions: ['phone', 'desktop'] }));
		const arm = q.now.trial(trial).design.arms[1]!;
		nudgeArm(q.now.db, trial, arm.id);
		expect(
			requestsOfTrial(q.now.db, trial).map((item) => [item.url, item.conditions.id, item.conditions.input, item.armId])
		).to.have.deep.members([
			[arm.url, 'phone', 'nudge', arm.id],
			[arm.url, 'desktop', 'nudge', arm.id]
		]);
		expect(q.now.loads(trial)).to.deep.equal([]);
	});

	it('come from HAR files too; what is none is refused', () => {
		const har = {
			log: {
				version: '1.2',
				entries: [
					{
						startedDateTime: '2026-11-24T10:00:00Z',
						time: 5,
						request: { method: 'GET', url: 'https://h.test/' },
						response: { status: 200 }
					}
				]
			}
		};
		expect(importHar(q.now.db, JSON.stringify(har), null)).to.be.above(0);
		expect(refusal(() => importHar(q.now.db, 'hello', null))).to.match(/^422 This is not a HAR file/);
	});
});
