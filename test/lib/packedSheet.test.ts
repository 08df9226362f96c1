import { expect } from 'chai';
import type { SheetView } from '../../src/lib/server/trials/sheetView';
import { packSheet, unpackSheet } from '../../src/routes/trials/[id]/packedSheet';

describe('the large lists of a sheet', () => {
	it('come back as they were, beside everything else', () => {
		const view = {
			trial: { id: 1, question: 'Is it quicker?' },
			loads: [{ id: 1, figures: { lcp: 1200, inp: null } }],
			judgement: { results: [{ metric: 'lcp', shift: { estimate: -20.5, low: null, high: 3 } }], looks: [] },
			evidence: null
		} as unknown as SheetView;
		const packed = packSheet(view);
		expect(packed).to.not.have.any.keys('loads', 'judgement', 'evidence');
		expect(unpackSheet({ ...packed, lab: 'idle' })).to.deep.equal({ ...view, lab: 'idle' });
	});
});
