/** Visits that a released version stored are read as they were, and counted on with. */
import { expect } from 'chai';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { quantileOf, weightOf } from '$core/field/histogram';
import { VIEWS } from '$core/field/tallies';
import type { Db } from '../../src/lib/server/base/db/connection';
import { putAway } from '../../src/lib/server/rooms/visits/merge';
import { histogramOfName, histogramsOver } from '../../src/lib/server/rooms/visits/readings';
import { openVisits } from '../../src/lib/server/rooms/visits/store';
import { refusalsOf, secretOf } from '../../src/lib/server/rooms/visits/queries/store';
import { VisitWriter } from '../../src/lib/server/rooms/visits/writer';
import { FIRST_DAY, LAST_DAY, bucketVisits, releasedVisits } from '../support/releasedVisits';

/** The p75 that no bins have rounded: nearest rank. */
function exactP75(values: readonly number[]): number {
	const sorted = [...values].sort((a, b) => a - b);
	return sorted[Math.ceil(sorted.length * 0.75) - 1]!;
}

describe('visits of a released version', () => {
	let folder: string;
	let db: Db;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'zafra-visits-'));
		bucketVisits(folder);
		db = openVisits(folder);
	});
	afterEach(() => {
		db.close();
		rmSync(folder, { recursive: true });
	});
	const all = releasedVisits();
	const over = (buckets: string[] | null = null, device: 'phone' | 'desktop' | null = null) =>
		histogramsOver(db, { siteId: 1, buckets, device, from: FIRST_DAY, until: LAST_DAY });
	const views = (buckets: string[] | null = null, device: 'phone' | 'desktop' | null = null) =>
		weightOf(histogramOfName(db, over(buckets, device), VIEWS));

	it('are all counted, at their page and device, whether their hours were merged or not', () => {
		expect(views()).to.equal(all.length);
		for (const bucket of ['/', '/timetable'])
			for (const device of ['phone', 'desktop'] as const)
				expect(views([bucket], device)).to.equal(
					all.filter((item) => item.bucket === bucket && item.device === device).length
				);
	});

	it('have the 75th percentile of the page views themselves, within 2 %', () => {
		for (const metric of ['lcp', 'inp'] as const) {
			const exact = exactP75(all.map(({ visit }) => visit.metrics[metric]!));
			const read = quantileOf(metric, histogramOfName(db, over(), metric), 0.75)!;
			expect(read / exact, metric).to.be.within(0.98, 1.02);
		}
	});

	it('keep goals, refusals and the secret that scripts in use were signed with', () => {
		const reached = all.filter(({ visit }) => visit.goals.length).length;
		expect(reached).to.be.above(0);
		expect(db.prepare("SELECT count(*) FROM visit WHERE body LIKE '%booked%'").pluck().get()).to.equal(reached / 3);
		expect(secretOf(db)).to.equal('made-up-secret-of-a-release');
		const refused = refusalsOf(db, 1, Date.parse(`${LAST_DAY}T12:00:00Z`));
		expect(refused).to.have.length(1);
		expect(refused[0]!.count).to.equal(3);
	});

	it('are counted on with: a page view sent again counts once, and merging changes nothing', async () => {
		const last = all.at(-1)!;
		await new VisitWriter(db).take([last, { ...last, visit: { ...last.visit, id: 'released-new' } }]);
		expect(views()).to.equal(all.length + 1);
		while (putAway(db, Date.parse(`${LAST_DAY}T12:00:00Z`) + 30 * 86_400_000));
		expect(views()).to.equal(all.length + 1);
	});
});
