import { expect } from 'chai';
import { hourIn, isTimeZone, startOfDay } from '$core/field/localDay';

const at = (iso: string) => Date.parse(iso);
const iso = (ms: number) => new Date(ms).toISOString().slice(0, 16);

// Offsets and days of change from the IANA time zone database (from memory): London +1 in summer, changed on the last
// Sundays of March and October 2026 (29 March, 25 October) at 01:00 UTC; Kathmandu +5:45; Honolulu -10.
describe('the beginning of a day on the wall', () => {
	for (const [zone, moment, start] of [
		['UTC', '2026-11-30T10:00:00Z', '2026-11-30T00:00'],
		['Europe/London', '2026-07-01T00:30:00Z', '2026-06-30T23:00'],
		['Europe/London', '2026-03-29T20:00:00Z', '2026-03-29T00:00'],
		['Europe/London', '2026-10-25T23:30:00Z', '2026-10-24T23:00'],
		['Asia/Kathmandu', '2026-11-30T00:00:00Z', '2026-11-29T18:15'],
		['Pacific/Honolulu', '2026-11-30T09:59:00Z', '2026-11-29T10:00'],
		['Pacific/Honolulu', '2026-11-30T10:00:00Z', '2026-11-30T10:00']
	] as const)
		it(`is ${start} UTC in ${zone} at ${moment}`, () => expect(iso(startOfDay(zone, at(moment)))).to.equal(start));

	it('has hours of its own', () => {
		expect(hourIn('Asia/Kathmandu', at('2026-11-30T00:00:00Z'))).to.equal(5);
		expect(hourIn('UTC', at('2026-11-30T00:00:00Z'))).to.equal(0);
		expect([isTimeZone('Europe/London'), isTimeZone('Atlantis/Capital')]).to.deep.equal([true, false]);
	});
});
