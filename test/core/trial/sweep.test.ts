import { expect } from 'chai';
import { pageInState, sweepTable } from '$core/trial/design/sweep';
import type { TrialArm } from '$core/trial/types';

let next = 0;
const pair = (page: string, state: string | null, withName = 'Level 2'): TrialArm[] => {
	const before = state === null ? null : { name: state, url: null, steps: [], cookies: [{ name: 'a', value: 'b' }] };
	const shared = { url: `https://shop.test/${page}`, reference: false, page: pageInState(page, state), before };
	return [
		{ ...shared, id: ++next, name: 'Without', baseline: true },
		{ ...shared, id: ++next, name: withName, baseline: false }
	];
};
const tableOf = (...arms: TrialArm[]) => sweepTable({ kind: 'sweep', arms });

describe('the table of a sweep', () => {
	beforeEach(() => (next = 0));

	it('has a row a page and a column a visitor state, the anonymous one first', () => {
		const table = tableOf(...pair('Basket', 'basket filled'), ...pair('Home', null), ...pair('Basket', null));
		expect(table.states).to.deep.equal([null, 'basket filled']);
		expect(table.rows.map(({ page, cells }) => [page, cells.map((cell) => cell?.arm ?? null)])).to.deep.equal([
			['Basket', [6, 2]],
			['Home', [4, null]]
		]);
	});

	it('names what is called otherwise than on most pages', () => {
		const table = tableOf(...pair('Home', null), ...pair('List', null), ...pair('Basket', null, 'Level 1 here'));
		expect(table.rows.map(({ cells }) => cells[0]!.exception)).to.deep.equal([null, null, 'Level 1 here']);
	});

	it('keeps pages apart whose names end as a state does', () => {
		const table = tableOf(...pair('Form, signed in', null), ...pair('Form', 'signed in'));
		// Two pages of a sweep cannot share a name: the input refuses what would.
		expect(table.rows.map(({ page }) => page)).to.deep.equal(['Form, signed in', 'Form']);
	});

	it('holds 40 pages', () => {
		const arms = Array.from({ length: 40 }, (_, i) => pair(`Page ${i}`, null)).flat();
		expect(tableOf(...arms).rows).to.have.length(40);
	});
});
