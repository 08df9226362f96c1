import { expect } from 'chai';
import { insertScenario } from '../../src/lib/server/demo/clients';
import { importDemoHistory } from '../../src/lib/server/demo/history';
import { loneLoads } from '../../src/lib/server/rooms/loads/queries/loads';
import { standingView } from '../../src/lib/server/rooms/standings/view';
import { findHistory } from '../../src/lib/server/rooms/watch/history';
import { watchedPageView } from '../../src/lib/server/rooms/watch/pageView';
import { readingsOfWatch } from '../../src/lib/server/rooms/watch/queries/readings';
import { listWatches, pagesOfWatch } from '../../src/lib/server/rooms/watch/queries/watches';
import { useQueue } from '../support/queue';

describe('the demonstration’s histories', function () {
	this.timeout(120_000);
	const q = useQueue();

	it('are drawn once, say that they were recorded, and are worked out at once', () => {
		const { db } = q.now;
		insertScenario(db);
		importDemoHistory(db);
		importDemoHistory(db);
		const [watch] = listWatches(db, 'watch', null);
		const standings = listWatches(db, 'standing', null);
		expect(standings).to.have.length(3);
		const readings = readingsOfWatch(db, watch!.id);
		// A year of weeks, less two in which the lab was off.
		expect(readings).to.have.length(50);
		expect(readings.every(({ why }) => why === 'recorded')).to.equal(true);
		expect(readings.filter(({ missed }) => missed > 0).map(({ missed }) => missed)).to.deep.equal([2]);
		// What stands for readings is no load that somebody asked for.
		expect(loneLoads(db, { clientId: null }, 10, 0)).to.deep.equal([]);
		const { breaks, changes } = findHistory(db, watch!.id)!;
		expect(new Set(breaks.flatMap(({ parts }) => parts))).to.deep.equal(new Set(['browser']));

		// The truth of the scenario: the chat in week 12, the optimiser in week 32.
		const timetable = pagesOfWatch(db, watch!.id).find(({ url }) => url.endsWith('/timetable'))!;
		const weekOf = (reading: number) => readings.findIndex(({ id }) => id === reading);
		const own = changes.filter(({ page, condition }) => page === timetable.id && condition === 'phone');
		const at = (week: number) => own.filter(({ after }) => weekOf(after) === week).map(({ verdict }) => verdict);
		expect(at(12)).to.include('worse').and.not.include('better');
		// Two weeks were missed in between.
		expect(at(30)).to.include('better').and.not.include('worse');
		const view = watchedPageView(db, watch!.id, timetable.id);
		expect(view.conditions[0]!.changes.some(({ markers }) => markers.length === 1)).to.equal(true);

		const standing = standingView(db, standings[0]!.id);
		expect(standing.conditions.map(({ lines }) => lines.lcp!.map(({ points }) => points.length))).to.deep.equal([
			[12, 12, 12],
			[12, 12, 12]
		]);
	});
});
