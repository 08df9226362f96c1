import { expect } from 'chai';
import * as v from 'valibot';
import type { MetricId } from '$core/metrics/catalogue';
import { USUAL_VISIT_SETTINGS } from '$core/field/visitSettings';
import { LEAST_READINGS } from '$core/watch/look';
import { StandingInput } from '$core/watch/input';
import { addMarker } from '../../src/lib/server/rooms/field/markers';
import { pastePages } from '../../src/lib/server/rooms/pages/commands';
import { listPages } from '../../src/lib/server/rooms/pages/queries/pages';
import { deriveRanks, findRanks } from '../../src/lib/server/rooms/standings/ranks';
import { standingView } from '../../src/lib/server/rooms/standings/view';
import { cancelReading, requestReading } from '../../src/lib/server/rooms/watch/blocks';
import { changeWatch, createWatch, deleteWatch, setWatchState } from '../../src/lib/server/rooms/watch/commands';
import { requestDueReadings } from '../../src/lib/server/rooms/watch/due';
import { deriveHistory, findHistory } from '../../src/lib/server/rooms/watch/history';
import { dueDeliveries, unreadNotices } from '../../src/lib/server/rooms/watch/queries/notices';
import { watchedPageView } from '../../src/lib/server/rooms/watch/pageView';
import {
	figuresOfReading,
	openReading,
	readingProgress,
	readingsOfWatch
} from '../../src/lib/server/rooms/watch/queries/readings';
import { watchList, watchRows } from '../../src/lib/server/rooms/watch/view';
import { existingWatch } from '../../src/lib/server/rooms/watch/watches';
import { findWatch, pagesOfWatch } from '../../src/lib/server/rooms/watch/queries/watches';
import { saveSource } from '../../src/lib/server/rooms/visits/sources';
import { noteChange } from '../../src/lib/server/rooms/trials/commands';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { clientWithSite, siteInput } from '../support/clients';
import { useWatches } from '../support/watches';
import { recordOf, requestOf } from '../support/records';
import { refusal, useQueue } from '../support/queue';

const SEARCH = [{ name: 'Search form', selector: '#search' }];

/** Of a load in which the lab waited on, or moved: the competitor has a script for it. */
function lateWork(kind: 'postponed' | 'held-back', url: string) {
	const { figures } = recordOf();
	const work = { requests: 1, wireBytes: 1000, decodedBytes: 3000, scriptMs: 5, figuresWith: figures };
	const during = kind === 'postponed' ? ('patience' as const) : ('nudge' as const);
	const script = requestOf({ url: 'https://rival.test/late.js', type: 'script', during });
	return {
		requests: url.includes('rival') ? [script] : [],
		postponed: kind === 'postponed' ? { ...work, fromMs: 4000, untilMs: 19_000, firstMs: 9000 } : null,
		heldBack: kind === 'held-back' ? { ...work, nudgedAtMs: 4000, settledMs: 5000 } : null
	};
}

describe('watches', () => {
	const q = useQueue();

	const { furnish, work, read, readMany } = useWatches(() => q.now.db);

	it('reads in rounds: every page once and the control twice in each, in an order by chance', () => {
		const { id, db } = furnish();
		const urls = read(id);
		expect(urls).to.have.length(5 * 4);
		const rounds = Array.from({ length: 5 }, (_, i) => urls.slice(i * 4, i * 4 + 4));
		for (const round of rounds) {
			expect(round.filter((url) => url.includes('/control/'))).to.have.length(2);
			expect(new Set(round).size).to.equal(3);
		}
		expect(new Set(rounds.map((round) => round.join())).size).to.be.above(1);
		expect(openReading(db, id)).to.equal(null);
		const [reading] = readingsOfWatch(db, id);
		const figures = figuresOfReading(db, reading!.id);
		expect(figures.map(({ rounds: own }) => own)).to.deep.include.members([
			[1, 2, 3, 4, 5],
			[1, 1, 2, 2, 3, 3, 4, 4, 5, 5]
		]);
	});

	it('loads what failed or was disturbed again in its block, and counts the calm load', () => {
		const { id, db } = furnish();
		let isFirst = true;
		read(id, (url) => {
			if (!url.endsWith('/booking') || !isFirst) return {};
			isFirst = false;
			return 'failed';
		});
		const booking = pagesOfWatch(db, id).find(({ url }) => url.endsWith('/booking'))!;
		const figures = figuresOfReading(db, readingsOfWatch(db, id)[0]!.id).find(
			({ watchedPageId }) => watchedPageId === booking.id
		)!;
		expect(figures.rounds).to.deep.equal([1, 2, 3, 4, 5]);
		expect(figures.trouble!.failed).to.deep.equal([{ code: 'http-status', status: null, loads: 1 }]);
	});

	it('gives a page that is down up after some tries, and says so in the list', () => {
		const { id, db, clientId } = furnish();
		const urls = read(id, (url) => (url.endsWith('/booking') ? 'failed' : {}));
		expect(urls.filter((url) => url.endsWith('/booking')).length).to.be.at.most(5 + 5);
		deriveHistory(db, id);
		const row = watchList(db, clientId, 'month').find(({ url }) => url.endsWith('/booking'))!;
		expect(row.state).to.equal('trouble');
		expect(row.conditions[0]!.trouble).to.include('failed');
		expect(unreadNotices(db, null).map(({ body }) => body.kind)).to.deep.equal(['trouble']);
		// As long as nothing changes it is told once.
		read(id, (url) => (url.endsWith('/booking') ? 'failed' : {}));
		deriveHistory(db, id);
		expect(unreadNotices(db, null)).to.have.length(1);
	});

	it('loads a page that may have moved more often in the same reading, the control with it', () => {
		const { id, db } = furnish({ metrics: ['lcp'] });
		readMany(id, 6, 2000);
		const urls = read(id, (url, nth) => ({
			figures: { lcp: (url.endsWith('/booking') ? 2600 : 2000) + ((nth * 37) % 40) }
		}));
		expect(urls.filter((url) => url.endsWith('/booking'))).to.have.length(20);
		expect(urls.filter((url) => url === 'https://own.test/')).to.have.length(5);
		expect(readingsOfWatch(db, id).at(-1)!.extended).to.have.length(1);
	});

	it('calls a change, tells it once on the Desk and by mail, and shows it on the page’s history', () => {
		const { id, db, clientId } = furnish({ metrics: ['lcp'], notices: { mail: ['ines@own.test'] } });
		readMany(id, 9, 2000);
		readMany(id, 3, 3000, 20);
		deriveHistory(db, id);
		const { changes } = findHistory(db, id)!;
		expect(changes.map(({ metric, verdict }) => [metric, verdict])).to.deep.equal([
			['lcp', 'worse'],
			['lcp', 'worse']
		]);
		expect(unreadNotices(db, clientId)).to.have.length(2);
		expect(dueDeliveries(db, '2100-01-01')).to.have.length(2);
		deriveHistory(db, id);
		expect(dueDeliveries(db, '2100-01-01')).to.have.length(2);
		const booking = pagesOfWatch(db, id).find(({ url }) => url.endsWith('/booking'))!;
		const view = watchedPageView(db, id, booking.id);
		expect(view.conditions[0]!.timelines[0]!.points).to.have.length(12);
		expect(view.conditions[0]!.changes[0]!.title).to.equal('Largest paint of /booking (desktop) got worse');
		expect(watchList(db, clientId, 'start').every(({ state }) => state === 'changed')).to.equal(true);
	});

	it('shows what was changed on a page between the stages of a trial beside the markers of its site', () => {
		const { id, db, siteId } = furnish();
		const settings = { name: 'larder.json', text: '{}' };
		addMarker(db, siteId, { day: '2026-11-02', path: '', kind: 'plugin', words: 'Larder', file: settings });
		const [first] = pagesOfWatch(db, id);
		const stages = [
			{ name: 'As it is', url: `${first!.url}/`, baseline: true },
			{ name: 'Larder on', url: `${first!.url}/`, baseline: false }
		];
		const trial = q.now.make({ kind: 'before-after', arms: stages });
		noteChange(db, trial, { words: 'Larder 3.2 on', fileName: null, file: null });
		const { markers } = watchedPageView(db, id, first!.id);
		expect(markers.map(({ words, fileName }) => [words, fileName])).to.have.deep.members([
			['Larder 3.2 on', null],
			['Larder', 'larder.json']
		]);
		expect(markers.find(({ words }) => words === 'Larder 3.2 on')!.trial!.id).to.equal(trial);
	});

	it('reads once after a week off, and says how many readings never came', () => {
		const { id, db } = furnish({ schedule: { every: 'day' } });
		const due = new Date(Date.parse(findWatch(db, id)!.nextAt!) + 7 * 86_400_000);
		expect(requestDueReadings(db, due)).to.equal(1);
		expect(requestDueReadings(db, due)).to.equal(0);
		expect(readingsOfWatch(db, id)).to.have.length(1);
		expect(openReading(db, id)!.missed).to.be.within(6, 7);
		expect(Date.parse(findWatch(db, id)!.nextAt!)).to.be.above(due.getTime());
	});

	it('ends early when it is stopped, keeps what was loaded, and refuses two blocks at once', () => {
		const { id, db } = furnish();
		const watch = existingWatch(db, id, 'watch');
		requestReading(db, watch, { why: 'demand' });
		expect(refusal(() => requestReading(db, watch, { why: 'demand' }))).to.include('under way');
		work(() => ({}), 6);
		expect(readingProgress(db, id)).to.deep.equal({ done: 6, total: 20 });
		cancelReading(db, watch);
		expect(readingsOfWatch(db, id)[0]!.state).to.equal('done');
		expect(figuresOfReading(db, readingsOfWatch(db, id)[0]!.id).length).to.be.above(0);
		requestReading(db, watch, { why: 'demand' });
		cancelReading(db, watch);
		expect(readingsOfWatch(db, id)).to.have.length(1);
	});

	it('keeps the history of a page that is taken out, and goes on with it when it comes back', () => {
		const { id, db, input, pages } = furnish();
		read(id);
		changeWatch(db, id, { ...input, kind: 'watch', pages: [pages[0]!] });
		expect(pagesOfWatch(db, id).filter(({ endedAt, role }) => !endedAt && role === 'page')).to.have.length(1);
		expect(watchRows(db, id, null).rows).to.have.length(20);
		changeWatch(db, id, { ...input, kind: 'watch' });
		expect(pagesOfWatch(db, id).filter(({ role }) => role === 'page')).to.have.length(2);
	});

	it('keeps all loads of the newest two readings, and of older ones those that stand for them', () => {
		const { id } = furnish();
		for (let i = 0; i < 4; i++) read(id);
		// Two whole blocks of 20, and two of which the middle load of two pages and the control is left.
		expect(q.now.value('SELECT count(*) FROM load')).to.equal(20 + 20 + 3 + 3);
	});

	it('is deleted with its readings; paused it reads nothing', () => {
		const { id, db } = furnish();
		read(id);
		setWatchState(db, id, 'watch', 'paused');
		expect(findWatch(db, id)!.nextAt).to.equal(null);
		expect(requestDueReadings(db, new Date('2100-01-01'))).to.equal(0);
		deleteWatch(db, id, 'watch');
		expect(q.now.value('SELECT count(*) FROM reading_figure')).to.equal(0);
		expect(q.now.value("SELECT count(*) FROM job WHERE status = 'queued' AND kind = 'load'")).to.equal(0);
	});

	it('refuses pages of another client, unknown conditions and a page that is not there, in words', () => {
		const { db, input, clientId } = furnish();
		const other = clientWithSite(db, 'other.test', 'Other');
		const make = (extra: object) => refusal(() => createWatch(db, { ...input, kind: 'watch', ...extra }));
		expect(make({ clientId: other.clientId })).to.include('belongs to another client');
		expect(make({ conditions: ['moon'] })).to.include('Unknown conditions “moon”');
		expect(make({ clientId, pages: [999] })).to.include('There is no page 999');
	});

	it('is called steady only once a step could have been called', () => {
		const { db, id } = furnish();
		const states = () => watchList(db, null, 'week').map(({ state }) => state);
		readMany(id, LEAST_READINGS - 1, 2000);
		deriveHistory(db, id);
		expect(states()).to.deep.equal(['young', 'young']);
		readMany(id, 1, 2000, 20);
		deriveHistory(db, id);
		expect(states()).to.deep.equal(['steady', 'steady']);
	});

	it('keeps the page’s own timings, which its history draws against the site’s thresholds and never calls', () => {
		const { db, id, siteId } = furnish();
		const timings = [{ name: 'hero', good: 500, poor: 1000, margin: 50 }];
		saveSource(db, siteId, { ...USUAL_VISIT_SETTINGS, timings });
		for (const atMs of [400, 900])
			read(id, (url) => (url.includes('/control/') ? {} : { marks: [{ name: 'hero', atMs, durationMs: null }] }));
		deriveHistory(db, id);
		const page = pagesOfWatch(db, id).find(({ role }) => role === 'page')!;
		const [condition] = watchedPageView(db, id, page.id).conditions;
		const hero = condition!.timelines.find(({ metric }) => metric === 'timing:hero')!;
		expect(hero).to.deep.include({ name: 'hero', thresholds: { good: 500, poor: 1000 }, isTiming: true, steps: [] });
		expect(hero.points.map(({ middle, loads }) => [middle, loads])).to.deep.equal([
			[400, 5],
			[900, 5]
		]);
		expect(condition!.timelines.filter(({ isTiming }) => !isTiming).map(({ name }) => name)).to.include('Score');
	});

	it('ranks a page with those of competitors after a run, with what was down beside them', () => {
		const { db, clientId, pages } = furnish();
		const rival = insertSite(db, clientId, siteInput('rival.test', { role: 'competitor' }));
		pastePages(db, rival, 'https://rival.test/booking\nhttps://rival.test/down');
		const others = listPages(db, { siteId: rival }, 10).map((page) => page.id);
		const input = v.parse(StandingInput, {
			clientId,
			name: 'Booking',
			pages: [pages[0], ...others],
			conditions: ['desktop'],
			loads: 8,
			shown: SEARCH
		});
		const id = createWatch(db, { ...input, kind: 'standing' });
		requestReading(db, existingWatch(db, id, 'standing'), { why: 'demand' });
		const asked: string[] = [];
		work((url, nth, { patience, conditions, shown: wanted }) => {
			if (url.endsWith('/down')) return 'failed';
			const isLate = patience || conditions.input === 'nudge';
			if (isLate) asked.push(`${url} ${patience ? 'waiting on' : 'with an input'}`);
			expect(wanted).to.deep.equal(SEARCH);
			const lcp: Partial<Record<MetricId, number>> = { lcp: (url.includes('rival') ? 1500 : 2500) + ((nth * 37) % 40) };
			const marks = [{ name: 'hero', atMs: url.includes('rival') ? 900 : 300, durationMs: null }];
			const shown = [{ name: 'Search form', selector: '#search', atMs: url.includes('rival') ? 400 : 800 }];
			// What a load outside the rounds shows must count in no rank.
			if (isLate) return { figures: { lcp: 1 }, ...lateWork(patience ? 'postponed' : 'held-back', url) };
			return { figures: lcp, marks, shown };
		});
		deriveRanks(db, id);
		const [run] = findRanks(db, id)!.runs;
		expect(run!.ranks.lcp!.map(({ from, to }) => [from, to])).to.deep.equal([
			[2, 2],
			[1, 1],
			[null, null]
		]);
		// A mark of the pages' own, which nobody asked about: a figure and no place.
		expect(run!.ranks['timing:hero']!.map(({ from }) => from)).to.deep.equal([null, null, null]);
		expect(run!.ranks['timing:Search form']!.map(({ from }) => from)).to.deep.equal([2, 1, null]);
		expect(asked.sort()).to.deep.equal([
			'https://own.test/ waiting on',
			'https://own.test/ with an input',
			'https://rival.test/booking waiting on',
			'https://rival.test/booking with an input'
		]);
		const view = standingView(db, id);
		const late = view.conditions[0]!.practices.find(({ name }) => name === 'Scripts put off until later')!;
		expect(late.cells.map(({ state, words, evidence }) => [state, words, evidence.length])).to.deep.equal([
			['no', 'none', 0],
			['yes', '1 held back, 1 postponed', 2]
		]);
		// What is put off still comes: no better. Its evidence is in a load after the rounds, not in the middle one.
		expect(late.isNeutral).to.equal(true);
		const { load: middle } = view.conditions[0]!.content.find(({ page }) => page === late.cells[1]!.page)!;
		expect(late.cells[1]!.load).to.be.above(middle);
		expect(view.conditions[0]!.rows.find(({ metric }) => metric === 'lcp')!.cells[0]!.words).to.equal('second of two');
		expect(view.conditions[0]!.troubles).to.have.length(1);
	});
});
