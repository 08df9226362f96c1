/** Asking a site's sample until its cache has it, against an asking that the test answers. */
import { expect } from 'chai';
import { failedFetch, type FetchSeen } from '$core/load/requests/stability';
import { leaseJob } from '../../src/lib/server/base/queue/jobs';
import { changePages, pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import {
	findSettling,
	requestSettling,
	settlePass,
	SettlingInput,
	stopSettling
} from '../../src/lib/server/rooms/pages/settling';
import { settlingView } from '../../src/lib/server/rooms/pages/view';
import type { Workplace } from '../../src/lib/server/runner/handler';
import { settle } from '../../src/lib/server/runner/handlers/settle';
import * as v from 'valibot';
import { clientWithSite } from '../support/clients';
import { refusal, useQueue } from '../support/queue';

const input = (typed: v.InferInput<typeof SettlingInput> = {}) => v.parse(SettlingInput, typed);

describe('asking a site’s cache', () => {
	const q = useQueue();
	let siteId: number;
	/** How often each page was asked, by device and address. */
	let asked: string[];
	beforeEach(() => {
		asked = [];
		siteId = clientWithSite(q.now.db).siteId;
		pastePages(q.now.db, siteId, '/a\n/b\n/c');
	});
	const choose = () =>
		changePages(
			q.now.db,
			listPages(q.now.db, { siteId }, 9).map(({ id }) => id),
			{ isChosen: true }
		);
	/** `/a` fills at once, `/b` on phones alone, `/c` never. */
	const cacheOf = (url: string, device: string, times: number): FetchSeen['cache'] =>
		(url.endsWith('/a') || (url.endsWith('/b') && device === 'phone')) && times > 1 ? 'hit' : 'miss';
	const at = (goesOn = () => true) => ({
		goesOn,
		persist: <Result>(write: () => Result) => Promise.resolve(write()),
		ask: async (
			urls: readonly string[],
			{ id }: { id: string },
			{ goesOn: more, answered }: { goesOn(): boolean; answered(url: string, answer: FetchSeen): void }
		) => {
			for (const url of urls) {
				if (!more()) return;
				const key = `${id} ${url}`;
				asked.push(key);
				const cache = cacheOf(url, id, asked.filter((known) => known === key).length);
				answered(url, { ...failedFetch(''), problem: null, status: 200, bytes: 9, tookMs: 100, cache });
			}
		}
	});
	const counts = () => settlingView(q.now.db, siteId)!.counts.map(({ words }) => words);

	it('needs a sample, and conditions that are there', () => {
		expect(refusal(() => requestSettling(q.now.db, siteId, input()))).to.match(/^422 This site has no sample yet/);
		choose();
		expect(refusal(() => requestSettling(q.now.db, siteId, input({ conditions: ['watch'] })))).to.match(
			/^422 There are no conditions “watch”/
		);
		expect(refusal(() => requestSettling(q.now.db, siteId, input({ pages: [999] })))).to.match(/^404/);
		requestSettling(q.now.db, siteId, input());
		expect(refusal(() => requestSettling(q.now.db, siteId, input()))).to.match(/^409 .*being asked already/);
	});

	it('asks again only what is not there yet, and counts by device', async () => {
		choose();
		requestSettling(q.now.db, siteId, input());
		expect(await settlePass(q.now.db, siteId, at())).to.equal(true);
		expect(counts()).to.deep.equal(['0 of 3 on Phone', '0 of 3 on Desktop']);
		expect(await settlePass(q.now.db, siteId, at())).to.equal(true);
		expect(counts()).to.deep.equal(['2 of 3 on Phone', '1 of 3 on Desktop']);
		asked = [];
		await settlePass(q.now.db, siteId, at());
		expect(asked.map((key) => key.replace('https://own.test', ''))).to.deep.equal([
			'phone /c',
			'desktop /b',
			'desktop /c'
		]);
	});

	it('ends with its time, keeps what was answered, and stays stopped', async () => {
		choose();
		requestSettling(q.now.db, siteId, input({ conditions: ['phone'] }));
		await settlePass(q.now.db, siteId, at());
		stopSettling(q.now.db, siteId);
		expect(await settlePass(q.now.db, siteId, at())).to.equal(false);
		expect(findSettling(q.now.db, siteId)!.pages.map((page) => page.asked)).to.deep.equal([1, 1, 1]);
		expect(settlingView(q.now.db, siteId)!.isOpen).to.equal(false);
	});

	it('leaves the lab to loads between two passes', async () => {
		choose();
		requestSettling(q.now.db, siteId, input({ conditions: ['phone'] }));
		const job = leaseJob(q.now.db, 'me')!;
		expect(job).to.deep.include({ kind: 'settle', subject: { kind: 'site', id: siteId }, slot: null });
		const work = at();
		const place = {
			db: q.now.db,
			labId: 'me',
			lab: { askPages: work.ask },
			note: () => undefined,
			persist: work.persist,
			interrupted: () => null
		} as unknown as Workplace;
		await settle.run(job, place);
		expect(leaseJob(q.now.db, 'me')).to.equal(null);
		const later = leaseJob(q.now.db, 'me', new Date(Date.now() + 60_000).toISOString())!;
		expect(later.subject).to.deep.equal({ kind: 'site', id: siteId });
		settle.giveUp({ ...later, attempts: 4 }, place);
		expect(settlingView(q.now.db, siteId)!).to.deep.include({ isOpen: false });
		expect(counts()).to.deep.equal(['0 of 3 on Phone; 3 failed']);
	});
});
