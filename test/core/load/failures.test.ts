import { expect } from 'chai';
import { FailureCode } from '$core/load/record/record';
import { parseRecord } from '$core/load/record/parseRecord';
import { failureReason, failureWords, readFailure, storedFailure } from '$core/wording/failure';
import { recordOf } from '../../support/records';

describe('why a load failed', () => {
	it('is stored as a code and what its sentence names, and read with the sentence again', () => {
		for (const code of FailureCode.options) {
			const reason = failureReason(code, 'shop.test');
			expect(storedFailure(reason)).to.deep.equal({ code, detail: 'shop.test' });
			expect(readFailure(storedFailure(reason))).to.deep.equal(reason);
		}
		expect(failureWords(failureReason('refused', 'shop.test'))).to.equal(
			'shop.test refused the connection. Check that the site is up and that its address and port are right.'
		);
	});

	it('keeps the words of records that were stored with them', () => {
		const earlier = { code: 'refused' as const, message: 'It said no.', advice: 'Ask again.' };
		expect(storedFailure(earlier)).to.deep.equal(earlier);
		expect(readFailure(earlier)).to.deep.equal(earlier);
	});

	it('may stand in a record of a file with words or without', () => {
		const { failure } = parseRecord({ ...recordOf(), status: 'failed', failure: { code: 'crash', detail: '' } });
		expect(readFailure(failure!).message).to.equal('The page crashed the browser tab.');
		const words = { code: 'crash', message: 'It fell.', advice: 'Look.' };
		expect(parseRecord({ ...recordOf(), status: 'failed', failure: words }).failure).to.deep.equal(words);
	});
});
