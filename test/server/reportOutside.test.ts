import { expect } from 'chai';
import type { OutsideFigure } from '$core/report/document';
import { newClient } from '$core/clients/client';
import { createClient } from '../../src/lib/server/rooms/clients/commands';
import { createReport, saveDraft } from '../../src/lib/server/rooms/reports/commands';
import { loadNearest } from '../../src/lib/server/rooms/reports/nearest';
import { existingReport } from '../../src/lib/server/rooms/reports/queries/reports';
import { reportView } from '../../src/lib/server/rooms/reports/view';
import { storeRequestedLoad } from '../../src/lib/server/rooms/loads/commands';
import { requestedOrder } from '../../src/lib/server/rooms/loads/requested';
import { finishJob, leaseJob } from '../../src/lib/server/base/queue/jobs';
import { measuredLoad, refusal, useQueue } from '../support/queue';

const FIGURE: OutsideFigure = {
	program: 'Another program',
	metric: 'wire',
	value: 320,
	unit: 'kB',
	device: 'desktop',
	place: '',
	day: '',
	scope: 'page',
	from: 'lab',
	loads: 5,
	definition: null
};

describe('figures from elsewhere in a report', () => {
	const q = useQueue();
	const db = () => q.now.db;

	function reportWith(figure: OutsideFigure): number {
		const trial = q.now.make({ rounds: 4, conditions: ['desktop'], primary: ['wire'] });
		for (let job = q.now.lease(); job; job = q.now.lease())
			q.now.finish(job, {
				url: 'http://a.test/',
				finalUrl: 'http://a.test/',
				figures: { wire: 100_000, decoded: 300_000 }
			});
		const id = createReport(db(), { trial, clientId: null, period: null, title: '', language: null });
		const { draft, revision } = existingReport(db(), id);
		const block = { id: 'outside', kind: 'outside', heading: '', words: draft.blocks[0]!.words, trial } as const;
		saveDraft(db(), id, { ...draft, blocks: [{ ...block, items: [figure] }] }, revision);
		return id;
	}
	function told(id: number) {
		const [block] = reportView(db(), id).view.blocks;
		if (block!.body.kind !== 'outside') throw new Error(block!.body.kind);
		const [item] = block!.body.items;
		return [item!.own, ...item!.lines, item!.rest].join(' | ').replaceAll('\u00a0', ' ');
	}

	it('leave unexplained what nothing explains', () => {
		expect(told(reportWith(FIGURE))).to.match(/100 kB.*220 kB more stays unexplained/);
	});

	it('are split by what their program counts by that name', () => {
		const words = told(reportWith({ ...FIGURE, value: 350, definition: 'decoded' }));
		expect(words).to.match(/Another program counts the .* by that name: of our own loads that is 300 kB/);
		expect(words).to.match(/alone makes 200 kB more.*50\.0 kB more stays unexplained/);
	});

	it('of a device that the trial has not are set beside a load of the page that was asked for', () => {
		const id = reportWith({ ...FIGURE, device: 'phone' });
		expect(told(id)).to.match(/It is of another device/);
		const [trial] = reportView(db(), id).trials;
		loadNearest(db(), id, trial!.id, 'phone');
		const job = leaseJob(db(), 'me')!;
		const { version, url, conditions } = requestedOrder(db(), job);
		expect([url, conditions.id]).to.deep.equal(['http://a.test/', 'phone']);
		const load = measuredLoad({ url, finalUrl: url, figures: { wire: 310_000 } });
		db().transaction(() => {
			finishJob(db(), job, 'me');
			storeRequestedLoad(db(), { job, version, measured: load });
		})();
		expect(told(id))
			.to.match(/310 kB/)
			.and.not.to.match(/another device/);
	});

	it('take no load under other conditions of the same device for one of theirs', () => {
		const id = reportWith({ ...FIGURE, device: 'phone' });
		const [trial] = reportView(db(), id).trials;
		loadNearest(db(), id, trial!.id, 'phone');
		const job = leaseJob(db(), 'me')!;
		const { version, url } = requestedOrder(db(), job);
		db().transaction(() => {
			finishJob(db(), job, 'me');
			storeRequestedLoad(db(), {
				job,
				version: { ...version, id: 'slow-phone' },
				measured: measuredLoad({ url, finalUrl: url })
			});
		})();
		expect(told(id)).to.match(/It is of another device/);
	});

	it('ask for no page of another client', () => {
		const id = reportWith(FIGURE);
		const other = q.now.make({ clientId: createClient(db(), newClient('Pellow’s Seed House')) });
		expect(refusal(() => loadNearest(db(), id, other, 'phone'))).to.match(
			/^422 This trial is not of the report’s client/
		);
	});
});
