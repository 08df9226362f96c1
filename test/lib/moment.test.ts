import { expect } from 'chai';
import { dayWords, joinMoment, partsOfMoment } from '../../src/lib/parts/moment';

describe('a moment that is typed', () => {
	it('is a day in words and a time, and goes back to what is sent', () => {
		const { day, time } = partsOfMoment('2026-12-01T09:30');
		expect([dayWords(day), time]).to.deep.equal(['1 Dec 2026', '09:30']);
		expect(joinMoment(dayWords(day), time)).to.equal('2026-12-01T09:30');
		expect(joinMoment('1 Dec 2026', '9:05')).to.equal('2026-12-01T09:05');
	});

	it('begins at midnight without a time, and is none without a day', () => {
		expect(joinMoment('27 Nov 2026', '')).to.equal('2026-11-27T00:00');
		expect(joinMoment('', '10:00')).to.equal('');
	});

	it('keeps what cannot be read, so that the server refuses it in words', () => {
		expect(joinMoment('tomorrow', '')).to.equal('tomorrowT00:00');
		expect(joinMoment('1 Dec 2026', 'noon')).to.equal('2026-12-01Tnoon');
		expect(dayWords('tomorrow')).to.equal('tomorrow');
	});
});
