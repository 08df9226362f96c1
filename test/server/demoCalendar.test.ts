import { expect } from 'chai';
import { readFileSync, readdirSync } from 'node:fs';
import { weeksUntil, writtenDay } from '../../demo-web/calendar';
import { drawHistory } from '../../demo-web/visitors/history';
import { RELEASES } from '../../demo-web/visitors/population';
import { importTrial } from '../../src/lib/server/demo/demo';
import { movedDay } from '../../src/lib/server/demo/calendar';
import { insertScenario } from '../../src/lib/server/demo/clients';
import { importDemoHistory } from '../../src/lib/server/demo/history';
import { MARKERS } from '../../src/lib/server/demo/scenario';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { readingsOfWatch } from '../../src/lib/server/rooms/watch/queries/readings';
import { listWatches } from '../../src/lib/server/rooms/watch/queries/watches';
import { useQueue } from '../support/queue';

const DAY_MS = 86_400_000;
const MADE = Date.parse('2026-12-02T09:00:00Z');
const TRIALS = 'demo/trials';

describe('the demonstration on any day', function () {
	this.timeout(120_000);
	const q = useQueue();
	const before = process.env.ZAFRA_DEMO_WEEKS;
	afterEach(() => {
		if (before === undefined) delete process.env.ZAFRA_DEMO_WEEKS;
		else process.env.ZAFRA_DEMO_WEEKS = before;
	});

	for (const later of [0, 100, 400])
		it(`is a week old when its folder is made ${later} days on`, () => {
			const { db } = q.now;
			const now = MADE + later * DAY_MS;
			const weeks = weeksUntil(now);
			process.env.ZAFRA_DEMO_WEEKS = String(weeks);
			insertScenario(db);
			importDemoHistory(db);
			const monday = Math.floor((now / DAY_MS - 4) / 7) * 7 + 4;
			const weekOf = (iso: string) => Math.floor((Date.parse(iso) / DAY_MS - monday) / 7);
			const [watch] = listWatches(db, 'watch', null);
			const readings = readingsOfWatch(db, watch!.id).map(({ plannedAt }) => weekOf(plannedAt));
			// A year up to the week before, each in a week of its own, less two in which the lab was off.
			expect([readings.at(-1), readings[0], new Set(readings).size]).to.deep.equal([-1, -52, 50]);
			// Releases are as far back on the client's calendar as in the world that they changed.
			for (const [i, { day, path }] of MARKERS.entries()) {
				expect([path, day]).to.deep.equal([RELEASES[i]!.path, RELEASES[i]!.day]);
				expect(writtenDay(movedDay(day), weeks)).to.equal(day);
				expect(weekOf(movedDay(day))).to.be.within(-12, -6);
			}
			const file = readdirSync(TRIALS)[0]!;
			const { endedAt } = findTrial(db, importTrial(db, readFileSync(`${TRIALS}/${file}`), now))!;
			expect((now - Date.parse(endedAt!)) / DAY_MS).to.be.within(0, 7);
		});

	it('has the same visits, moved by whole weeks', () => {
		const now = Date.parse('2026-11-26T12:00:00Z');
		const firstOf = (at: number, weeks: number) => {
			const visits = [];
			for (const { at: moment, ...visit } of drawHistory(at, weeks)) {
				visits.push({ ...visit, at: moment - weeks * 7 * DAY_MS });
				if (visits.length === 500) break;
			}
			return visits;
		};
		expect(firstOf(now + 57 * 7 * DAY_MS, 57)).to.deep.equal(firstOf(now, 0));
	});
});
