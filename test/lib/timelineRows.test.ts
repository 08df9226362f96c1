import { expect } from 'chai';
import type { OwnedRequest } from '$core/load/requests/requestList';
import { chosenOf, rowsByOwner, wishFrom } from '../../src/lib/charts/timelineRows';

const owner = (id: string) => ({ id, name: id, kind: 'third-party', requests: 0, wireBytes: 0 }) as never;
const request = (number: number, id: string) => ({ number, owner: { id } }) as unknown as OwnedRequest;

describe('rows of a load’s timeline', () => {
	const requests = [request(1, 'own'), request(2, 'bell'), request(3, 'own')];
	const shown = (folded: string[]) =>
		rowsByOwner(requests, [owner('own'), owner('bell'), owner('silent')], folded).map((row) =>
			'owner' in row ? `${row.owner.id} ${row.count}` : row.request.number
		);

	it('stand under the headings of their owners, and owners without any have none', () => {
		expect(shown([])).to.deep.equal(['own 2', 1, 3, 'bell 1', 2]);
		expect(shown(['own'])).to.deep.equal(['own 2', 'bell 1', 2]);
	});

	it('are chosen by the address, and the choice is written back as it was read', () => {
		const asked = { q: 'js', owner: 'bell', type: 'js', show: 'failed', order: 'size', by: '', open: '' };
		const wish = wishFrom(asked);
		expect(chosenOf(wish, false, null)).to.deep.include({ q: 'js', owner: 'bell', type: 'js' });
		expect(wishFrom(chosenOf(wish, true, 4))).to.deep.equal(wish);
		expect(chosenOf(wish, true, 4)).to.include({ by: 'owner', open: '4' });
	});

	it('take an address that names what there is not as usual', () => {
		expect(wishFrom({ show: 'toString', order: 'constructor' })).to.include({ special: '', order: 'start' });
		expect(Object.values(chosenOf(wishFrom({}), false, null)).join('')).to.equal('');
	});
});
