import { expect } from 'chai';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { wholeSheet } from '../../src/lib/server/rooms/trials/sheet/whole';
import { parsePresence } from '$core/trial/design/presence';
import { describeReason } from '$core/wording/reasons';
import { startSlot } from '../../src/lib/server/rooms/trials/orders';
import { useQueue } from '../support/queue';
import { requestOf } from '../support/records';

describe('what a trial asks of its loads', () => {
	const q = useQueue();
	const arms = (second: string) => [
		{ name: 'Before', url: 'http://a.test', baseline: true },
		{ name: 'With cache', url: 'http://b.test', checks: parsePresence(second) }
	];
	const page = (cached: boolean) => ({
		url: 'http://b.test/',
		finalUrl: 'http://b.test/',
		requests: [
			requestOf({
				url: 'http://b.test/',
				type: 'document',
				responseHeaders: [['x-cache', cached ? 'HIT' : 'MISS']] as [string, string][]
			})
		]
	});

	it('asks the lab to count the elements of its checks', () => {
		q.now.make({ rounds: 1, arms: arms('selector #new') });
		const slots = [q.now.lease()!, q.now.lease()!];
		const selectors = slots.map((slot) => startSlot(q.now.db, slot.job.slot!).order.selectors);
		expect(selectors).to.have.deep.members([[], ['#new']]);
	});

	it('marks a variant whose change was not there in every load, beside the verdict', async () => {
		const id = q.now.make({ rounds: 8, primary: ['lcp'], arms: arms('header x-cache: HIT') });
		for (let job = q.now.lease(); job; job = q.now.lease())
			q.now.finish(job, { ...page(job.round !== 3), figures: { lcp: 2000 + job.round } });
		const sheet = await wholeSheet(q.now.db, q.now.trial(id), '');
		expect(sheet.presence[0]!.checks).to.deep.equal([{ check: 'header x-cache: HIT', met: 7, loads: 8 }]);
		expect(sheet.boards[0]!.answers[0]!.caveats.broke).to.equal(
			'“With cache”: “header x-cache: HIT” was met in 7 of 8 loads.'
		);
	});

	it('holds a stage that is not what it should be: no verdict, and why', () => {
		const id = q.now.make({
			kind: 'before-after',
			rounds: 5,
			primary: ['lcp'],
			arms: [
				{ name: 'Before', url: 'http://b.test', checks: parsePresence('header x-cache: MISS') },
				{ name: 'After', url: 'http://b.test', checks: parsePresence('header x-cache: HIT') }
			]
		});
		// The change never went live.
		const runStage = () => {
			for (let job = q.now.lease(); job; job = q.now.lease())
				q.now.finish(job, { ...page(false), figures: { lcp: 2000 } });
		};
		runStage();
		q.now.startStage(id);
		runStage();
		const [lcp] = judgementOf(q.now.db, q.now.trial(id)).results.filter((result) => result.metric === 'lcp');
		expect(lcp!.verdict).to.equal('none');
		expect(describeReason(lcp!.reason!)).to.equal('“After” is held: “header x-cache: HIT” was met in 0 of 5 loads.');
	});

	it('says beside a verdict what no longer leaves', async () => {
		const id = q.now.make({
			rounds: 4,
			primary: ['lcp'],
			mustSend: [{ name: 'Visit counting', pattern: '*count.test/hit*' }]
		});
		const [first] = q.now.trial(id).design.arms;
		const hit = [requestOf({ url: 'https://count.test/hit', startMs: 500 })];
		for (let job = q.now.lease(); job; job = q.now.lease())
			q.now.finish(job, { requests: job.armId === first!.id ? hit : [], figures: { lcp: 2000 } });
		const sheet = await wholeSheet(q.now.db, q.now.trial(id), '');
		expect(sheet.sends[0]!.own[0]).to.deep.include({ sent: 0, loads: 4, fate: 'unknown' });
		expect(sheet.boards[0]!.answers[0]!.caveats.broke).to.equal(
			'“B”: Visit counting left in 0 of 4 loads while they loaded; whether it leaves later is not known.'
		);
	});
});
