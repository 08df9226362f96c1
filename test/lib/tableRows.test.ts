import { expect } from 'chai';
import { pageOf, sortedRows, type Column } from '../../src/lib/parts/tableRows';
import { newlyRested } from '../../src/lib/trialNotices';

interface Row {
	name: string;
	size: number | null;
}
const rows: Row[] = [
	{ name: 'beta', size: 10 },
	{ name: 'Alpha', size: null },
	{ name: 'gamma', size: 9 }
];
const columns: Column<Row>[] = [
	{ key: 'name', name: 'Name', sort: (row) => row.name },
	{ key: 'size', name: 'Size', sort: (row) => row.size },
	{ key: 'plain', name: 'Plain' }
];
const names = (key: string, ascending: boolean) =>
	sortedRows(rows, columns, { key, ascending }).map(({ name }) => name);

describe('rows of a table', () => {
	it('are sorted as people and as numbers go, and the unknown stays last', () => {
		expect(names('name', true)).to.deep.equal(['Alpha', 'beta', 'gamma']);
		expect(names('name', false)).to.deep.equal(['gamma', 'beta', 'Alpha']);
		expect(names('size', true)).to.deep.equal(['gamma', 'beta', 'Alpha']);
		expect(names('size', false)).to.deep.equal(['beta', 'gamma', 'Alpha']);
	});

	it('stay as they came without an order, or by a column that has none', () => {
		expect(sortedRows(rows, columns, null)).to.equal(rows);
		expect(names('plain', true)).to.deep.equal(['beta', 'Alpha', 'gamma']);
	});

	it('come in pages, of which the last stands for all beyond', () => {
		const numbers = Array.from({ length: 7 }, (_, i) => i);
		expect(pageOf(numbers, 1, 3)).to.deep.equal([0, 1, 2]);
		expect(pageOf(numbers, 3, 3)).to.deep.equal([6]);
		expect(pageOf(numbers, 9, 3)).to.deep.equal([6]);
		expect(pageOf([], 1, 3)).to.deep.equal([]);
	});
});

describe('news of trials', () => {
	const trial = (id: number, status: string) => ({ id, status });

	it('are those that moved and rest now, and nothing at the first look', () => {
		const before = [
			trial(1, 'running'),
			trial(2, 'queued'),
			trial(3, 'done'),
			trial(4, 'running'),
			trial(5, 'running')
		];
		const now = [trial(1, 'done'), trial(2, 'failed'), trial(3, 'done'), trial(4, 'waiting'), trial(5, 'stopped')];
		expect(newlyRested(before, now).map(({ id, kind }) => [id, kind])).to.deep.equal([
			[1, 'success'],
			[2, 'error'],
			[4, 'info']
		]);
		expect(newlyRested(null, now)).to.deep.equal([]);
	});
});
