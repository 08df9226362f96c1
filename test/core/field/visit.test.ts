import { expect } from 'chai';
import fc from 'fast-check';
import * as v from 'valibot';
import { binOf, binValue, GROWTH, quantileOf } from '$core/field/histogram';
import { addHistograms, packHistograms, unpackHistograms } from '$core/field/packedHistograms';
import { goalName, kindName, kindOfVisit, lcpOfGoal, talliesOf, timingName, VIEWS } from '$core/field/tallies';
import { Beacon, isBotAgent, isImplausible, type Visit } from '$core/field/visit';
import { CustomTiming, HandOver, VisitSettings } from '$core/field/visitSettings';
import { aBeacon, aVisit } from '../../support/visits';

describe('a page view at the door', () => {
	const issueOf = (value: unknown) => {
		const read = v.safeParse(Beacon, value);
		return read.success ? null : `${v.getDotPath(read.issues[0])}: ${read.issues[0].message}`;
	};

	it('is taken as the script sends it', () => {
		expect(issueOf(aBeacon())).to.equal(null);
		expect(issueOf(aBeacon([aVisit({ navigation: 'soft-navigation' }), aVisit()]))).to.equal(null);
	});

	it('is refused with the place that is wrong', () => {
		expect(issueOf({ ...aBeacon(), visits: [] })).to.match(/^visits/);
		expect(issueOf(aBeacon([aVisit({ path: 'no/slash' })]))).to.equal('visits.0.path: A path begins with /.');
		expect(issueOf(aBeacon([{ ...aVisit(), metrics: { lcp: 'fast' } } as never]))).to.match(/^visits\.0\.metrics\.lcp/);
		expect(issueOf(aBeacon([{ ...aVisit(), navigation: 'teleport' } as never]))).to.match(/navigation/);
		expect(issueOf(aBeacon(Array.from({ length: 21 }, () => aVisit())))).to.match(/^visits/);
	});

	it('cannot be of another planet: negative, longer than a browser reports, or older than a month', () => {
		const wrong: Partial<Visit>[] = [
			{ metrics: { lcp: -1 } },
			{ metrics: { lcp: 120_001 } },
			{ metrics: { cls: 21 } },
			{ ageMs: -5 },
			{ ageMs: 32 * 86_400_000 },
			{ timings: { menu: -3 } }
		];
		for (const change of wrong) expect(isImplausible(aVisit(change)), JSON.stringify(change)).to.equal(true);
		expect(isImplausible(aVisit())).to.equal(false);
		expect(isImplausible(aVisit({ metrics: { cls: 0, inp: 0 } }))).to.equal(false);
	});

	it('is told from a program’s by what that says of itself', () => {
		const phone = 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/156.0.0.0 Mobile Safari/537.36';
		expect(isBotAgent(phone)).to.equal(false);
		for (const agent of ['', 'curl/8.5', 'Examplebot/1.0', 'Mozilla/5.0 HeadlessChrome/156', 'python-requests/2'])
			expect(isBotAgent(agent), agent).to.equal(true);
	});
});

describe('what a page view counts as', () => {
	it('is one view, a bin a metric, its timings, and its LCP among those that reached a goal', () => {
		const visit = aVisit({ metrics: { lcp: 2000, cls: 0 }, timings: { menu: 300 }, goals: ['booked', 'booked'] });
		expect(talliesOf(visit).map(({ name }) => name)).to.deep.equal([
			VIEWS,
			'lcp',
			'cls',
			timingName('menu'),
			goalName('booked'),
			lcpOfGoal('booked')
		]);
		const bin = talliesOf(visit).find(({ name }) => name === 'lcp')!.bin;
		expect(binValue('lcp', bin)).to.be.within(2000 * 0.98, 2000 * 1.02);
	});
});

describe('packed histograms', () => {
	const histogram = fc
		.dictionary(fc.integer({ min: -1, max: 400 }).map(String), fc.integer({ min: 1, max: 1e9 }), { maxKeys: 30 })
		.map((bins) => new Map(Object.entries(bins).map(([bin, weight]) => [Number(bin), weight])));
	const all = fc
		.array(fc.tuple(fc.integer({ min: 0, max: 60 }), histogram), { maxLength: 6 })
		.map((entries) => new Map(entries));
	const plain = (histograms: ReadonlyMap<number, ReadonlyMap<number, number>>) =>
		[...histograms]
			.map(([id, bins]) => [id, [...bins].sort(([a], [b]) => a - b)])
			.sort(([a], [b]) => Number(a) - Number(b));

	it('come out as they went in', () => {
		fc.assert(
			fc.property(all, (own) => {
				expect(plain(unpackHistograms(packHistograms(own)))).to.deep.equal(plain(own));
			})
		);
	});

	it('take away exactly what was added', () => {
		fc.assert(
			fc.property(all, all, (first, second) => {
				const sum = unpackHistograms(packHistograms(first));
				addHistograms(sum, second);
				addHistograms(sum, second, -1);
				const kept = plain(sum).filter(([, bins]) => (bins as unknown[]).length > 0);
				expect(kept).to.deep.equal(plain(first).filter(([, bins]) => (bins as unknown[]).length > 0));
			})
		);
	});

	it('of an hour of a page are some hundred bytes, and 40 MB hold a month of 200 pages', () => {
		// 60 page views of five metrics, spread as on phones: about 45 bins each.
		const hour = new Map(
			[0, 1, 2, 3, 4].map((id) => [id, new Map(Array.from({ length: 45 }, (_, i) => [100 + i * 2, (i % 5) + 1]))])
		);
		const bytes = packHistograms(hour).length;
		expect(bytes).to.be.below(600);
		// Days of 200 pages on two devices, with a key and overhead of some 40 bytes.
		expect(200 * 2 * 31 * (bytes * 1.6 + 40)).to.be.below(40e6);
	});

	it('of another version, or cut off, are refused', () => {
		expect(() => unpackHistograms(Uint8Array.of(9, 0))).to.throw('version 9');
		const bytes = packHistograms(new Map([[1, new Map([[5, 300]])]]));
		expect(() => unpackHistograms(bytes.slice(0, -1))).to.throw('too early');
	});

	it('keep every quantile within 2 % of the exact one', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 1, max: 60_000, noNaN: true }), { minLength: 1, maxLength: 200 }),
				(values) => {
					const own = new Map<number, number>();
					for (const value of values) own.set(binOf('lcp', value), (own.get(binOf('lcp', value)) ?? 0) + 1);
					const unpacked = unpackHistograms(packHistograms(new Map([[0, own]]))).get(0)!;
					const exact = [...values].sort((a, b) => a - b)[Math.ceil(0.75 * values.length) - 1]!;
					expect(quantileOf('lcp', unpacked, 0.75)! / exact).to.be.within(0.98 - 1e-9, 1.02 + 1e-9);
				}
			)
		);
		expect(GROWTH).to.be.closeTo(1.0408, 1e-4);
	});
});

describe('settings of a visits’ script', () => {
	const issueOf = (schema: v.GenericSchema, value: unknown) => v.safeParse(schema, value).issues?.[0]?.message ?? null;

	it('report everything and keep for ever unless told otherwise', () => {
		expect(v.parse(VisitSettings, {})).to.deep.equal({
			sampling: 1,
			timings: [],
			goals: [],
			timeZone: 'UTC',
			handOver: null,
			keepDays: null
		});
	});

	it('are refused in words where they make no sense', () => {
		expect(issueOf(CustomTiming, { name: 'menu', good: 500, poor: 300 })).to.equal('Good must be below poor.');
		expect(issueOf(CustomTiming, { name: 'two words', good: 1, poor: 2 })).to.match(/^A name has up to 40/);
		expect(issueOf(VisitSettings, { sampling: 0 })).to.match(/At least/);
		expect(issueOf(VisitSettings, { keepDays: 7 })).to.match(/28 days/);
		const events = { call: 'eval("x")', nameField: 'name', valueField: 'value', quietField: 'quiet', events: {} };
		expect(issueOf(HandOver, events)).to.match(/^Write the function/);
		expect(issueOf(HandOver, { ...events, call: 'counter.note' })).to.equal(null);
	});

	it('are told apart by line and way of arriving, and counted by it where it is known', () => {
		expect(kindOfVisit('3g', 'navigate')).to.equal('slow/new');
		expect(kindOfVisit('4g', 'back-forward-cache')).to.equal('fast/kept');
		expect(kindOfVisit('', 'reload')).to.equal('unknown/again');
		const visit = { metrics: { lcp: 1800 }, timings: {}, goals: [] };
		const names = talliesOf(visit, 'slow/new').map(({ name }) => name);
		expect(names).to.include(kindName('lcp', 'slow/new'));
		expect(talliesOf(visit).map(({ name }) => name)).to.deep.equal(['views', 'lcp']);
	});
});
