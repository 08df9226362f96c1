import { expect } from 'chai';
import * as v from 'valibot';
import { Block, type BlockKind } from '$core/report/document';
import { BLOCK_NAMES, freeId, isOfTrial, newBlock } from '../../src/routes/reports/[id]/blockNames';

const KINDS = Object.keys(BLOCK_NAMES) as BlockKind[];

describe('blocks that an analyst adds', () => {
	for (const kind of KINDS)
		it(`are whole at once: ${BLOCK_NAMES[kind]}`, () => {
			const block = newBlock(kind, `${kind}-1`, 7);
			expect(v.safeParse(Block, block).success).to.equal(true);
			expect(block).to.include({ kind, heading: '' });
		});

	it('show a trial, and are not added where there is none', () => {
		const withoutTrial = KINDS.filter((kind) => newBlock(kind, 'x', null) === null);
		expect(withoutTrial).to.deep.equal(KINDS.filter(isOfTrial));
		expect(newBlock('board', 'x', 7)).to.include({ trial: 7 });
		// Figures from elsewhere can stand alone.
		expect(newBlock('outside', 'x', null)).to.include({ trial: null });
	});

	it('have ids that none of the others has', () => {
		expect(freeId('text', [])).to.equal('text-1');
		expect(freeId('text', [{ id: 'text-1' }, { id: 'text-3' }])).to.equal('text-2');
	});

	it('of a time end today and begin four weeks before', () => {
		const block = newBlock('period', 'x', null);
		if (block?.kind !== 'period') throw new Error('no period');
		expect((Date.parse(block.until) - Date.parse(block.from)) / 86_400_000).to.equal(28);
	});
});
