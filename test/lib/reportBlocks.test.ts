import { expect } from 'chai';
import * as v from 'valibot';
import { Block, type BlockKind } from '$core/report/document';
import { freeId } from '$core/report/freeId';
import { BLOCK_NAMES, isOfTrial, newBlock } from '../../src/routes/reports/[id]/blockNames';

const KINDS = Object.keys(BLOCK_NAMES) as BlockKind[];

/** What can be shown of pages over time, against competitors, of an audit, of one load. */
const WATCHED = { watch: 3, standing: 4, audit: 5, load: 6 };

describe('blocks that an analyst adds', () => {
	for (const kind of KINDS)
		it(`are whole at once: ${BLOCK_NAMES[kind]}`, () => {
			const block = newBlock(kind, `${kind}-1`, 7, WATCHED);
			expect(v.safeParse(Block, block).success).to.equal(true);
			expect(block).to.include({ kind, heading: '' });
		});

	it('show a trial, and are not added where there is none', () => {
		const withoutTrial = KINDS.filter((kind) => newBlock(kind, 'x', null, WATCHED) === null);
		expect(withoutTrial).to.deep.equal(KINDS.filter(isOfTrial));
		expect(newBlock('board', 'x', 7, WATCHED)).to.include({ trial: 7 });
		// Figures from elsewhere can stand alone.
		expect(newBlock('outside', 'x', null, WATCHED)).to.include({ trial: null });
	});

	it('have ids that none of the others has', () => {
		expect(freeId('text', [])).to.equal('text-1');
		expect(freeId('text', [{ id: 'text-1' }, { id: 'text-3' }])).to.equal('text-2');
	});

	it('of a time end today and begin four weeks before', () => {
		const block = newBlock('period', 'x', null, WATCHED);
		if (block?.kind !== 'period') throw new Error('no period');
		expect((Date.parse(block.until) - Date.parse(block.from)) / 86_400_000).to.equal(28);
	});

	it('of a watch, a standing, an audit or a load are not added where there is none', () => {
		for (const kind of ['audit', 'side', 'load'] as const) expect(newBlock(kind, 'x', 7, {})).to.equal(null);
		expect(newBlock('side', 'x', 7, WATCHED)).to.include({ audit: 5 });
		expect(newBlock('watch', 'x', 7, {})).to.equal(null);
		expect(newBlock('standing', 'x', null, WATCHED)).to.include({ watch: 4 });
	});
});
