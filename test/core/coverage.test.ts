import { expect } from 'chai';
import { unusedInScript, unusedInSheet } from '$core/load/requests/coverage';

const range = (start: number, end: number, used: boolean) => ({ start, end, used });

describe('coverage', () => {
	it('script: what was never called, the innermost range deciding', () => {
		expect(unusedInScript([range(0, 100, true)])).to.equal(0);
		expect(unusedInScript([range(0, 100, true), range(20, 50, false)])).to.equal(30);
		expect(
			unusedInScript([range(0, 100, true), range(20, 50, false), range(30, 40, true), range(60, 70, false)])
		).to.equal(30);
		expect(unusedInScript([range(0, 100, false)])).to.equal(100);
		expect(unusedInScript([])).to.equal(0);
	});

	it('style: all but the rules that matched, counted once', () => {
		expect(unusedInSheet(100, [])).to.equal(100);
		expect(unusedInSheet(100, [range(0, 20, true), range(10, 30, true), range(50, 60, false)])).to.equal(70);
	});
});
