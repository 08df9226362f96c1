import { startSlot } from '../../src/lib/server/rooms/trials/orders';
import { expect } from 'chai';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { NewTrialInput } from '$core/trial/design/input';
import { newClient } from '$core/clients/client';
import { createClient } from '../../src/lib/server/rooms/clients/commands';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { siteInput } from '../support/clients';
import { deleteConditions } from '../../src/lib/server/rooms/conditions/commands';
import { listConditions, saveConditions } from '../../src/lib/server/rooms/conditions/queries/saved';
import { createTrial } from '../../src/lib/server/rooms/trials/commands';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { conditionsOfTrial } from '../../src/lib/server/rooms/trials/queries/trial';
import { repeatTrial } from '../../src/lib/server/rooms/trials/repeat';
import { refusal, trialInput, useQueue } from '../support/queue';

describe('designs of trials', () => {
	const q = useQueue();

	it('load a variant with steps of its own, and the others with those of all; step times are judged', () => {
		const own = [{ open: '/x' }, { expect: { selector: '#list' } }];
		const all = [{ click: '#swap' }, { expect: { selector: '#list' } }];
		const id = q.now.make({
			arms: [
				{ name: 'Click', url: 'http://a.test', baseline: true },
				{ name: 'Whole page', url: 'http://a.test', steps: own }
			],
			steps: all,
			primary: ['stepShown']
		});
		const asked = new Map<string, unknown>();
		for (let slot = q.now.lease(); slot; slot = q.now.lease()) {
			const { armName, order } = startSlot(q.now.db, slot);
			asked.set(armName, order.steps);
			q.now.finish(slot, { figures: { stepShown: armName === 'Click' ? 100 : 900 } });
		}
		expect(asked.get('Click')).to.deep.equal(all);
		expect(asked.get('Whole page')).to.deep.equal(own);
		const { results } = judgementOf(q.now.db, q.now.trial(id));
		expect(results.find(({ metric }) => metric === 'stepShown')).to.include({ baselineMedian: 100, armMedian: 900 });
	});

	it('keep a frozen copy of their conditions, whatever the workshop does later', () => {
		saveConditions(q.now.db, { ...BUILT_IN_CONDITIONS[1]!, id: 'slow-desk', name: 'Slow desk' });
		const id = q.now.make({ conditions: ['slow-desk'] });
		saveConditions(q.now.db, { ...BUILT_IN_CONDITIONS[1]!, id: 'slow-desk', name: 'Slow desk', capMs: 9000 });
		expect(q.now.trial(id).design.conditions[0]!.capMs).to.equal(45_000);
		deleteConditions(q.now.db, 'slow-desk');
		expect(q.now.trial(id).design.conditions[0]!.name).to.equal('Slow desk');
		expect(listConditions(q.now.db).map((condition) => condition.id)).to.deep.equal(['phone', 'desktop']);
		expect(refusal(() => createTrial(q.now.db, trialInput({ conditions: ['tablet'] })))).to.equal(
			'422 Unknown conditions “tablet”. Known are: phone, desktop.'
		);
	});

	it('are refused in words where a design makes no sense', () => {
		expect(refusal(() => createTrial(q.now.db, trialInput({ kind: 'before-after', adaptive: true })))).to.match(
			/^422 .*adaptive trial needs interleaved/
		);
		const issue = (extra: object) => v.safeParse(NewTrialInput, { ...trialInput(), ...extra }).issues?.[0].message;
		expect(issue({ kind: 'same-page' })).to.match(/give one address/);
		expect(
			issue({
				kind: 'sweep',
				arms: [
					{ name: 'A', url: 'http://a.test', page: 'Home' },
					{ name: 'B', url: 'http://b.test', page: 'Article' }
				]
			})
		).to.match(/has two arms/);
		expect(issue({ notBefore: 'tomorrow' })).to.match(/not a time/);
		expect(issue({ steps: [{ clik: '#a' }] })).to.match(/one of the verbs/);
	});

	it('of one page make two looks of one address; sweeps judge each page and all together', () => {
		const same = createTrial(
			q.now.db,
			trialInput({ kind: 'same-page', arms: [{ name: 'Home', url: 'http://a.test' }] })
		);
		expect(q.now.trial(same).design.arms.map((arm) => [arm.name, arm.url, arm.baseline])).to.deep.equal([
			['Home', 'http://a.test/', true],
			['Home, second look', 'http://a.test/', false]
		]);
		const arms = ['Home', 'Article'].flatMap((page) =>
			['Without', 'With'].map((name) => ({ name, page, url: `http://${name.toLowerCase()}.test/${page}` }))
		);
		const id = q.now.make({ kind: 'sweep', arms, rounds: 7, primary: ['lcp'] });
		const names = new Map(q.now.trial(id).design.arms.map((arm) => [arm.id, arm]));
		q.now.runAll((job) => ({
			lcp:
				2000 +
				job.round +
				(names.get(job.armId)!.name === 'With' ? (names.get(job.armId)!.page === 'Home' ? 400 : 600) : 0)
		}));
		const results = judgementOf(q.now.db, q.now.trial(id)).results.filter((result) => result.metric === 'lcp');
		expect(
			results.map((result) => [names.get(result.arm)?.page ?? 'all', Number(result.shift!.estimate.toFixed(2))])
		).to.deep.equal([
			['Home', 400],
			['Article', 600],
			['all', 0.25]
		]);
		const three = v.safeParse(NewTrialInput, {
			...trialInput(),
			kind: 'sweep',
			arms: [...arms, { name: 'Third', page: 'Home', url: 'http://third.test/' }]
		});
		expect(three.issues?.[0].message).to.match(/two arms with the same “page”/);
	});

	it('are repeated with the same design and another seed', () => {
		const id = q.now.make({ rounds: 2, steps: [{ expect: { selector: 'h1' } }] });
		const again = q.now.trial(repeatTrial(q.now.db, id));
		expect(again).to.include({ repeatOf: id, status: 'draft', question: 'Is it?' });
		expect(again.design.steps).to.deep.equal([{ expect: { selector: 'h1' } }]);
		expect(again.design.seed).to.not.equal(5);
		expect(q.now.trial(repeatTrial(q.now.db, again.id)).repeatOf).to.equal(id);
	});

	it('may name pages that Zafra knows, and none that it does not', () => {
		const client = createClient(q.now.db, newClient('Orrery Hall'));
		insertSite(q.now.db, client, siteInput('a.test'));
		const site = q.now.value<number>('SELECT id FROM site WHERE client_id = ?', client);
		q.now.db.prepare("INSERT INTO page (id, site_id, url) VALUES (5, ?, 'http://a.test/')").run(site);
		const arms = (pageId: number) => [
			{ name: 'A', url: 'http://a.test', pageId },
			{ name: 'B', url: 'http://b.test' }
		];
		const id = createTrial(q.now.db, trialInput({ arms: arms(5) }));
		expect(q.now.trial(id).design.arms.map((arm) => arm.pageId)).to.deep.equal([5, undefined]);
		expect(q.now.trial(repeatTrial(q.now.db, id)).design.arms[0]!.pageId).to.equal(5);
		expect(refusal(() => createTrial(q.now.db, trialInput({ arms: arms(6) })))).to.equal('422 There is no page 6.');
		q.now.db.prepare('DELETE FROM page').run();
		expect(q.now.trial(id).design.arms[0]!.pageId).to.equal(undefined);
	});

	it('keep equal conditions once, whatever they are called, and different ones apart', () => {
		saveConditions(q.now.db, { ...BUILT_IN_CONDITIONS[1]!, id: 'office', name: 'Office' });
		saveConditions(q.now.db, { ...BUILT_IN_CONDITIONS[1]!, id: 'slow', name: 'Slow', capMs: 9000 });
		const id = createTrial(q.now.db, trialInput({ conditions: ['desktop', 'office', 'slow'] }));
		const [desktop, office, slow] = conditionsOfTrial(q.now.db, id);
		expect(desktop!.hash).to.equal(office!.hash);
		expect(slow!.hash).not.to.equal(office!.hash);
		expect(q.now.value('SELECT count(*) FROM conditions_version')).to.equal(2);
		expect(q.now.trial(id).design.conditions.map((condition) => [condition.name, condition.capMs])).to.deep.equal([
			['Desktop', 45_000],
			['Office', 45_000],
			['Slow', 9000]
		]);
	});
});
