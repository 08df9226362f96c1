import { expect } from 'chai';
import { Cron } from 'croner';
import * as v from 'valibot';
import { nextReading, readingsAQuarter, readingsBetween, Schedule } from '$core/watch/schedule';

const schedule = (candidate: Partial<v.InferInput<typeof Schedule>>) =>
	v.parse(Schedule, { every: 'week', ...candidate });
const issue = (candidate: object) => {
	const result = v.safeParse(Schedule, candidate);
	return result.success ? 'allowed' : result.issues[0].message;
};

function run(candidate: Schedule, from: string, times: number): Date[] {
	const dates: Date[] = [];
	let at: Date | null = new Date(from);
	while (dates.length < times && at) {
		at = nextReading(candidate, at);
		if (at) dates.push(at);
	}
	return dates;
}

describe('when a watch is read', () => {
	it('reads once a week, and within seven weeks on each weekday once', () => {
		const dates = run(schedule({}), '2026-01-05T00:00:00Z', 14);
		const days = dates.map((date) => date.getUTCDay());
		expect(new Set(days.slice(0, 7)).size).to.equal(7);
		expect(days.slice(7)).to.deep.equal(days.slice(0, 7));
		// 5 January 2026 is a Monday: one reading in each week that begins with one.
		const week = (date: Date) => Math.floor((date.getTime() - Date.parse('2026-01-05T00:00:00Z')) / (7 * 86_400_000));
		expect(dates.map(week)).to.deep.equal(Array.from({ length: 14 }, (_, i) => i));
		expect(new Set(dates.slice(0, 7).map((date) => date.getUTCHours())).size).to.equal(7);
	});

	it('reads once a day, at another hour each day of a week', () => {
		const dates = run(schedule({ every: 'day' }), '2026-03-01T00:00:00Z', 7);
		expect(dates.map((date) => date.getUTCDate())).to.deep.equal([1, 2, 3, 4, 5, 6, 7]);
		expect(new Set(dates.map((date) => date.getUTCHours())).size).to.equal(7);
	});

	it('keeps to the clock of its time zone over the change to summer time and back', () => {
		// In London the clock goes forward on 29 March 2026 and back on 25 October 2026: 6:30 is 6:30 UTC, then 5:30 UTC.
		const daily = schedule({ every: 'pattern', pattern: '30 6 * * *', timeZone: 'Europe/London' });
		expect(run(daily, '2026-03-27T12:00:00Z', 3).map((date) => date.toISOString())).to.deep.equal([
			'2026-03-28T06:30:00.000Z',
			'2026-03-29T05:30:00.000Z',
			'2026-03-30T05:30:00.000Z'
		]);
		expect(run(daily, '2026-10-24T12:00:00Z', 2).map((date) => date.toISOString())).to.deep.equal([
			'2026-10-25T06:30:00.000Z',
			'2026-10-26T06:30:00.000Z'
		]);
	});

	it('agrees with croner on patterns', () => {
		for (const pattern of ['0 9 * * 1', '15 3 1 * *', '45 22 * 2 *', '0 12 29 2 *']) {
			const timezone = 'Pacific/Auckland';
			const expected = new Cron(pattern, { timezone, paused: true }).nextRuns(5, '2026-01-01T00:00:00');
			const own = schedule({ every: 'pattern', pattern, timeZone: timezone });
			const first = new Date(expected[0]!.getTime() - 1000);
			expect(run(own, first.toISOString(), 5)).to.deep.equal(expected);
		}
	});

	it('counts what was missed, and nothing on demand', () => {
		const weekly = schedule({});
		expect(readingsBetween(weekly, new Date('2026-01-05T00:00:00Z'), new Date('2026-02-02T00:00:00Z'))).to.equal(4);
		expect(nextReading(schedule({ every: 'demand' }), new Date())).to.equal(null);
	});

	it('knows how many chances of a false call a quarter has', () => {
		const from = new Date('2026-01-01T00:00:00Z');
		expect(readingsAQuarter(schedule({}), from)).to.equal(13);
		expect(readingsAQuarter(schedule({ every: 'day' }), from)).to.equal(91);
		// Mondays and Thursdays of 13 weeks.
		expect(readingsAQuarter(schedule({ every: 'pattern', pattern: '0 8 * * 1,4' }), from)).to.equal(26);
	});

	it('refuses what cannot be read, with what to do', () => {
		expect(issue({ every: 'pattern', pattern: 'often' })).to.include('five fields');
		expect(issue({ every: 'pattern', pattern: '99 * * * *' })).to.include('cannot be read');
		expect(issue({ every: 'pattern', pattern: '*/10 * * * *' })).to.equal('At most one reading an hour.');
		expect(issue({ every: 'pattern', pattern: '0 0 31 2 *' })).to.include('no day');
		expect(issue({ every: 'week', timeZone: 'Nowhere/Land' })).to.include('time zone');
		expect(issue({ every: 'never' })).to.include('each week');
	});
});
