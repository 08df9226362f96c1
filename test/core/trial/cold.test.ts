import { expect } from 'chai';
import fc from 'fast-check';
import { bustedUrl, coldLine, coldShare, parseCold, weightedFigure } from '$core/trial/design/cold';
import { seededRandom } from '$core/stats/random';

describe('cold visits', () => {
	it('are asked for in a line, and written back as they were', () => {
		for (const line of ['bust nocache', 'purge POST https://own.test/larder/purge'])
			expect(coldLine(parseCold(line)!)).to.equal(line);
		expect(parseCold('  ')).to.equal(null);
		for (const wrong of ['bust', 'bust a b=c&', 'purge https://own.test/', 'purge POST own.test', 'empty it'])
			if (wrong !== 'bust a b=c&') expect(() => parseCold(wrong), wrong).to.throw(`“${wrong}” cannot be read`);
	});

	it('ask for an address that no cache has seen', () => {
		expect(bustedUrl('https://own.test/a?x=1#top', { how: 'bust', parameter: 'nocache' }, '7')).to.equal(
			'https://own.test/a?x=1&nocache=7#top'
		);
	});

	// By hand: 10 visits an hour, a life of one hour: of 11 visits one is cold.
	it('have a share by traffic and life of the cache', () => {
		expect(coldShare(10, 60)).to.be.closeTo(1 / 11, 1e-12);
		expect(coldShare(0, 60)).to.equal(1);
		expect(coldShare(10, 0)).to.equal(1);
		expect(weightedFigure(1000, 2100, 1 / 11)).to.be.closeTo(1100, 1e-9);
	});

	it('have that share in a simulation of visits at random', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.5, max: 30, noNaN: true }),
				fc.double({ min: 2, max: 120, noNaN: true }),
				(rate, life) => {
					const random = seededRandom(7);
					let [now, fullUntil, cold] = [0, 0, 0];
					const VISITS = 20_000;
					for (let i = 0; i < VISITS; i++) {
						now += (-Math.log(1 - random()) / rate) * 60;
						if (now < fullUntil) continue;
						cold++;
						fullUntil = now + life;
					}
					expect(cold / VISITS).to.be.closeTo(coldShare(rate, life), 0.02);
				}
			),
			{ numRuns: 20 }
		);
	});
});
