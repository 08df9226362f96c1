import { expect } from 'chai';
import * as v from 'valibot';
import { addDays, windowEnds, windowStart } from '$core/field/windows';
import { nowIso } from '../../src/lib/server/base/db/connection';
import { effectsOfPage } from '../../src/lib/server/rooms/field/effects';
import { formAction } from '../../src/lib/server/http/form';
import { addMarkerFrom, MarkerFields } from '../../src/lib/server/rooms/field/markerForm';
import { addMarker, concerns, deleteMarker } from '../../src/lib/server/rooms/field/markers';
import {
	existingMarker,
	fileOfMarker,
	MarkerInput,
	markersOfSite
} from '../../src/lib/server/rooms/field/queries/markers';
import { saveReading } from '../../src/lib/server/rooms/field/queries/readings';
import { insertSite } from '../../src/lib/server/rooms/clients/queries/sites';
import { changePages, pastePages } from '../../src/lib/server/rooms/pages/commands';
import { clientWithSite, siteInput } from '../support/clients';
import { refusal, useQueue } from '../support/queue';

const RELEASE = '2026-09-20';

describe('markers of a site', () => {
	const q = useQueue();
	let siteId: number;
	let clientId: number;
	beforeEach(() => {
		({ siteId, clientId } = clientWithSite(q.now.db));
		pastePages(q.now.db, siteId, '/a\n/b');
		changePages(q.now.db, [1, 2], { isChosen: true });
	});
	const mark = (changes: Partial<MarkerInput> = {}) =>
		addMarker(q.now.db, siteId, { day: RELEASE, path: '/a', kind: 'release', words: 'Lighter pictures', ...changes });

	it('are noted with their day, newest first, and removed', () => {
		const first = mark();
		mark({ day: '2026-10-01', words: 'A plugin', kind: 'plugin', path: '' });
		expect(markersOfSite(q.now.db, siteId).map(({ words }) => words)).to.deep.equal(['A plugin', 'Lighter pictures']);
		deleteMarker(q.now.db, first);
		expect(markersOfSite(q.now.db, siteId)).to.have.length(1);
		expect(refusal(() => deleteMarker(q.now.db, first))).to.equal(`404 There is no marker ${first}.`);
		expect(refusal(() => addMarker(q.now.db, 99, { day: RELEASE, path: '', kind: 'other', words: 'x' }))).to.match(
			/^404/
		);
	});

	it('keep the settings of that day as a file, and none where there were none', () => {
		const kept = { name: 'larder.json', text: '{"squeeze":true}' };
		const id = mark({ file: kept });
		const bare = mark({ words: 'Nothing kept' });
		expect(fileOfMarker(q.now.db, id)).to.deep.equal(kept);
		expect(existingMarker(q.now.db, id).fileName).to.equal('larder.json');
		expect(refusal(() => fileOfMarker(q.now.db, bare))).to.equal(`404 No settings were kept with marker ${bare}.`);
	});

	it('come from a form with their file; what was typed stays when a word is missing', async () => {
		const mark = formAction(MarkerFields, (typed, _, body) => addMarkerFrom(q.now.db, siteId, typed, body));
		const send = (words: string, file: File) => {
			const body = new FormData();
			for (const [name, value] of Object.entries({ day: RELEASE, words, path: '' })) body.set(name, value);
			body.set('file', file);
			return mark({ request: new Request('http://zafra.test', { method: 'POST', body }) });
		};
		const file = new File(['{"on":true}'], 'larder.json');
		expect(await send('Larder on', file)).to.have.nested.property('form.valid', true);
		const [marker] = markersOfSite(q.now.db, siteId);
		expect(fileOfMarker(q.now.db, marker!.id)).to.deep.equal({ name: 'larder.json', text: '{"on":true}' });
		const wordless = await send('', file);
		expect(wordless).to.have.nested.property('data.form.data.day', RELEASE);
		expect(wordless).to.deep.nested.include({ 'data.form.errors.words': ['Say what was changed.'] });
		const tooLarge = await send('Larder on', new File(['x'.repeat(1_000_001)], 'all.sql'));
		expect(tooLarge).to.have.property('status', 413);
		expect(tooLarge)
			.to.have.nested.property('data.form.errors.file[0]')
			.that.matches(/larger than 1 MB/);
	});

	it('are refused in words where they make no sense', () => {
		const issueOf = (wish: object) =>
			v.safeParse(MarkerInput, { day: RELEASE, words: 'x', ...wish }).issues?.[0]?.message;
		expect(issueOf({ day: '20.9.2026' })).to.equal('Write the day as 2026-11-27.');
		expect(issueOf({ day: '2026-13-40' })).to.equal('This day is in no calendar.');
		expect(issueOf({ day: addDays(nowIso().slice(0, 10), 2) })).to.equal('This day has not come yet.');
		expect(issueOf({ words: ' ' })).to.equal('Say what was changed.');
		expect(issueOf({ path: 'a b' })).to.equal('A path begins with /.');
		expect(issueOf({})).to.equal(undefined);
	});

	it('concern the pages whose path begins so; "/" the home page alone', () => {
		expect(concerns({ path: '' }, '/news')).to.equal(true);
		expect(concerns({ path: '/' }, '/')).to.equal(true);
		expect(concerns({ path: '/' }, '/news')).to.equal(false);
		expect(concerns({ path: '/news' }, '/news/winter')).to.equal(true);
		expect(concerns({ path: '/news' }, '/newsletter')).to.equal(false);
	});

	describe('and what they did', () => {
		const ends = windowEnds('2026-11-22', 13, 7);
		/** Percentiles of windows as the mean of their days, on the log scale. */
		const fill = (site: number, pageId: number | null, dayValue: (day: string) => number) => {
			for (const until of ends) {
				const days = Array.from({ length: 28 }, (_, i) => dayValue(addDays(until, -i)));
				const p75 = 2000 * Math.exp(days.reduce((sum, item) => sum + item, 0) / 28);
				const metrics = { lcp: { p75, shares: null, bins: [] }, cls: { p75: 0.02, shares: null, bins: [] } };
				const reading = { pageId, device: 'phone' as const, source: 'panel' as const, from: windowStart(until), until };
				saveReading(q.now.db, site, { ...reading, metrics });
			}
		};
		const season = (day: string) => (day > '2026-10-10' ? 0.05 : 0);
		const effectOfLcp = () => {
			const [marked] = effectsOfPage(q.now.db, 1, 'phone');
			return marked!.metrics.find(({ metric }) => metric === 'lcp')!;
		};

		it('is told from windows, with other pages of the site as what stood still', () => {
			mark();
			fill(siteId, 1, (day) => season(day) + (day >= RELEASE ? Math.log(0.8) : 0));
			fill(siteId, 2, season);
			const { control, answer } = effectOfLcp();
			expect(control).to.equal('other-pages');
			if (!('effect' in answer)) throw new Error('no effect');
			expect(answer.effect.verdict).to.equal('better');
			expect(answer.effect.estimate / answer.effect.before).to.be.closeTo(-0.2, 0.01);
		});

		it('is told against a competitor where the whole site was released', () => {
			mark({ path: '' });
			fill(siteId, 1, season);
			const rival = insertSite(q.now.db, clientId, siteInput('rival.test', { role: 'competitor' }));
			fill(rival, null, season);
			const { control, answer } = effectOfLcp();
			expect(control).to.equal('competitor');
			// Both had the same season: nothing was the release's.
			expect('effect' in answer && answer.effect.verdict).to.equal('same');
		});

		it('has no verdict where nothing stood still', () => {
			mark({ path: '' });
			fill(siteId, 1, (day) => (day >= RELEASE ? Math.log(0.8) : 0));
			const { control, answer } = effectOfLcp();
			expect(control).to.equal(null);
			expect('effect' in answer && answer.effect.verdict).to.equal('none');
		});

		it('says how many days more where it is too soon, and nothing where no day helps', () => {
			mark({ day: '2026-11-16' });
			fill(siteId, 1, season);
			expect(effectOfLcp().answer).to.deep.equal({ tooSoon: { moreDays: 7 } });
			const [marked] = effectsOfPage(q.now.db, 2, 'phone');
			expect(marked).to.equal(undefined);
			expect(effectsOfPage(q.now.db, 1, 'desktop')[0]!.metrics[0]!.answer).to.deep.equal({
				tooSoon: { moreDays: null }
			});
		});
	});
});
