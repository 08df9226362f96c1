import { expect } from 'chai';
import * as v from 'valibot';
import { StandingInput, WatchInput } from '$core/watch/input';
import { findClientByName } from '../../src/lib/server/rooms/clients/queries/clients';
import { sitesOf } from '../../src/lib/server/rooms/clients/queries/sites';
import { deleteState, saveState } from '../../src/lib/server/rooms/clients/queries/visitorStates';
import { insertScenario } from '../../src/lib/server/demo/clients';
import { requestLoad } from '../../src/lib/server/rooms/loads/commands';
import { insertLoad } from '../../src/lib/server/rooms/loads/loads';
import { pageOffer } from '../../src/lib/server/rooms/watch/pageChoice';
import { requestReading } from '../../src/lib/server/rooms/watch/blocks';
import { createWatch } from '../../src/lib/server/rooms/watch/commands';
import { visitorOfLoad } from '../../src/lib/server/rooms/watch/queries/visitors';
import { existingWatch } from '../../src/lib/server/rooms/watch/watches';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import { measuredLoad, refusal, useQueue } from '../support/queue';

const MEMBER = {
	name: 'Signed in',
	url: null,
	steps: [],
	cookies: [{ name: 'member', value: 'yes' }]
};

describe('who visits, wherever a load is asked for', () => {
	const q = useQueue();
	const world = () => {
		const { db } = q.now;
		insertScenario(db);
		const client = findClientByName(db, 'Skerry Line')!;
		const [own, rival] = ['skerry-line.test', 'puffin-ferries.test'].map(
			(host) => sitesOf(db, client).find((site) => site.host === host)!.id
		);
		return { db, client, own: own!, rival: rival! };
	};
	const orders = () =>
		q.now.db
			.prepare(`SELECT "order" ->> 'url' AS url, "order" ->> '$.before.name' AS visitor FROM job WHERE kind = 'load'`)
			.all() as { url: string; visitor: string | null }[];

	it('is chosen for a single load', () => {
		const { db, client, own } = world();
		const state = saveState(db, own, MEMBER);
		requestLoad(db, { url: 'https://skerry-line.test/', conditions: 'phone', clientId: client, state });
		expect(orders().map(({ visitor }) => visitor)).to.deep.equal(['Signed in']);
		const missing = { url: 'https://skerry-line.test/', conditions: 'phone', clientId: client, state: 999 };
		expect(refusal(() => requestLoad(db, missing))).to.equal('404 There is no visitor state 999.');
	});

	it('is chosen for each site of a standing, and had by its pages alone', () => {
		const { db, client, own, rival } = world();
		const states = [saveState(db, own, MEMBER), saveState(db, rival, { ...MEMBER, name: 'Consent given' })];
		const pages = pageOffer(db, client, 'standing').pairs.find(({ type }) => type === 'home')!.pages;
		const input = { clientId: client, name: 'Home', pages: pages.map(({ id }) => id), states, conditions: ['phone'] };
		const id = createWatch(db, { ...v.parse(StandingInput, input), kind: 'standing' });
		requestReading(db, existingWatch(db, id, 'standing'), { why: 'demand' });
		const had = new Set(orders().map(({ url, visitor }) => `${new URL(url).host} ${visitor}`));
		expect([...had].sort()).to.deep.equal([
			'northsound-crossings.test null',
			'puffin-ferries.test Consent given',
			'skerry-line.test Signed in'
		]);
	});

	it('parts a history when it changes, and stops a watch that has lost it', () => {
		const { db, client, own } = world();
		const state = saveState(db, own, MEMBER);
		const page = pageOffer(db, client, 'watch').usual[0]!.id;
		const input = { clientId: client, name: 'Home', pages: [page], states: [state], conditions: ['phone'] };
		const id = createWatch(db, { ...v.parse(WatchInput, input), kind: 'watch' });
		requestReading(db, existingWatch(db, id, 'watch'), { why: 'demand' });
		const seen = new Set<string>();
		for (let job = leaseJob(db, 'me'); job; job = leaseJob(db, 'me')) {
			const stored = { jobId: job.id, slot: null, conditionId: 'phone', conditionsHash: null, clientId: client };
			seen.add(visitorOfLoad(db, insertLoad(db, stored, measuredLoad())));
		}
		// The page's loads as the member, the control page's as nobody.
		expect(seen.size).to.equal(2);
		expect(seen.has('')).to.equal(true);
		const other = v.parse(WatchInput, { ...input, name: 'Other' });
		const second = createWatch(db, { ...other, kind: 'watch' });
		deleteState(db, state);
		expect(refusal(() => requestReading(db, existingWatch(db, second, 'watch'), { why: 'demand' }))).to.match(
			/^409 A visitor state of this watch was deleted/
		);
	});
});
