import { expect } from 'chai';
import { tapVerdict } from '$core/load/journey/tap';

describe('an early press', () => {
	it('works at once, late or never where the control is there; else it says what stood in the way', () => {
		expect(tapVerdict({ state: 'there', effectMs: 80 })).to.equal('works');
		expect(tapVerdict({ state: 'there', effectMs: 2600 })).to.equal('late');
		expect(tapVerdict({ state: 'there', effectMs: null })).to.equal('lost');
		// What happens after a press beside the control is none of its doing.
		expect(tapVerdict({ state: 'moved', effectMs: 80 })).to.equal('moved');
		expect(tapVerdict({ state: 'covered', effectMs: null })).to.equal('covered');
		expect(tapVerdict({ state: 'missing', effectMs: null })).to.equal('missing');
	});
});
