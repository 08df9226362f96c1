import { expect } from 'chai';
import * as v from 'valibot';
import { StandingInput, WatchInput } from '$core/watch/input';
import { figuresByMetric, measured, settingParts } from '$core/watch/reading';
import { troubleOf } from '$core/watch/trouble';
import { SETTING } from '../../support/histories';
import { page } from '../../support/digests';
import { recordOf, requestOf } from '../../support/records';

const URL = 'https://own.test/booking';
const ok = (finalUrl: string) => recordOf({ url: URL, finalUrl, status: 'ok' });
const failed = (status: number) =>
	recordOf({
		url: URL,
		status: 'failed',
		failure: { code: 'http-status', message: 'It failed.', advice: '' },
		requests: [requestOf({ url: URL, type: 'document', status })]
	});

describe('trouble of a page in a reading', () => {
	it('is none where the page came as asked, a slash or https more or less', () => {
		expect(troubleOf(URL, [ok(URL), ok(`${URL}/`)])).to.equal(null);
		expect(troubleOf('http://own.test/booking', [ok(URL)])).to.equal(null);
	});

	it('is being led elsewhere, and to where', () => {
		expect(troubleOf(URL, [ok('https://own.test/')])!.redirectedTo).to.equal('https://own.test/');
		expect(troubleOf(URL, [ok('https://other.test/booking')])!.redirectedTo).to.equal('https://other.test/booking');
	});

	it('is being asked for a name, by status or by where it leads', () => {
		expect(troubleOf(URL, [failed(401)])!.asksWhoOneIs).to.equal(true);
		expect(troubleOf(URL, [ok('https://own.test/account/login?next=booking')])!.asksWhoOneIs).to.equal(true);
		expect(troubleOf(URL, [ok('https://own.test/logbook')])!.asksWhoOneIs).to.equal(false);
	});

	it('is being built otherwise than in the reading before, beyond what a template’s own pages differ', () => {
		const built = (signature: number[]) =>
			recordOf({ url: URL, finalUrl: URL, status: 'ok', page: page('', { signature }) });
		const before = Array.from({ length: 10 }, (_, i) => i);
		const alike = (share: number) => before.map((hash, i) => (i < share * 10 ? hash : 100 + i));
		expect(troubleOf(URL, [built(alike(0.5))], before)).to.equal(null);
		expect(troubleOf(URL, [built(alike(0.4))], before)).to.deep.include({ likeness: 0.4, failed: [] });
		// Nothing is known of one of both.
		expect(troubleOf(URL, [built([])], before)).to.equal(null);
		expect(troubleOf(URL, [built(alike(0))])).to.equal(null);
	});

	it('counts failures by their reason and status', () => {
		expect(troubleOf(URL, [failed(500), failed(500), failed(404), ok(URL)])!.failed).to.deep.equal([
			{ code: 'http-status', status: 500, loads: 2 },
			{ code: 'http-status', status: 404, loads: 1 }
		]);
	});
});

describe('figures of a reading', () => {
	it('keep the order of the rounds, with nothing where a load has none', () => {
		const figures = figuresByMetric([{ lcp: 2000, inp: null }, { lcp: null }, { lcp: 2100 }]);
		expect(figures.lcp).to.deep.equal([2000, null, 2100]);
		expect(figures.inp).to.equal(undefined);
		expect(measured(figures.lcp)).to.deep.equal([2000, 2100]);
		expect(measured(undefined)).to.deep.equal([]);
	});

	it('are compared only under one setting', () => {
		expect(settingParts(SETTING, { ...SETTING })).to.deep.equal([]);
		expect(settingParts(SETTING, { ...SETTING, browser: 'x', lab: 'y' })).to.deep.equal(['browser', 'lab']);
		expect(settingParts(SETTING, null)).to.deep.equal([]);
	});
});

describe('the door for watches and standings', () => {
	const issue = (schema: v.GenericSchema, input: object): string => {
		const result = v.safeParse(schema, { clientId: 1, name: 'Some', pages: [1, 2], ...input });
		return result.success ? 'allowed' : result.issues[0].message;
	};

	it('lets the least pass, with what is usual', () => {
		const watch = v.parse(WatchInput, { clientId: 1, name: ' Bookings ', pages: [3] });
		expect(watch).to.deep.include({ name: 'Bookings', loads: 5, conditions: ['phone', 'desktop'], control: null });
		expect(watch.schedule.every).to.equal('week');
	});

	it('says what is wrong, in words', () => {
		expect(issue(WatchInput, { pages: [] })).to.equal('Choose at least one page.');
		expect(issue(WatchInput, { loads: 2 })).to.include('at least 3 loads');
		expect(issue(WatchInput, { control: 'somewhere' })).to.include('not a web address');
		expect(issue(WatchInput, { notices: { mail: ['nobody'] } })).to.include('no mail address');
		expect(issue(WatchInput, { metrics: ['speed'] })).to.include('no such metric');
		expect(issue(StandingInput, { pages: [1] })).to.include('at least one of a competitor');
		expect(issue(StandingInput, { loads: 7 })).to.include('at least 8 rounds');
		expect(issue(StandingInput, {})).to.equal('allowed');
	});
});
