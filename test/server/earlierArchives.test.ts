import { expect } from 'chai';
import { withSubjects } from '../../src/lib/server/rooms/archive/earlier';

describe('an archive of an earlier Zafra', () => {
	// As such archives were written: a subject is one text, and the load that is asked again stands in the order.
	const job = { id: 4, kind: 'load', subject: 'arm:7', order: '{"url":"https://own.test/","of":12,"steps":[]}' };
	const use = { owner: 'load:12', role: 'picture', position: 0, sha256: 'x' };

	it('is read in the shape of today', () => {
		const { job: jobs, artifact_use: uses } = withSubjects({ job: [job], artifact_use: [use] });
		expect(jobs).to.deep.equal([
			{
				id: 4,
				kind: 'load',
				subject_kind: 'arm',
				subject_id: 7,
				order: '{"url":"https://own.test/","steps":[]}',
				of_load: 12
			}
		]);
		expect(uses).to.deep.equal([{ owner_kind: 'load', owner_id: 12, role: 'picture', position: 0, sha256: 'x' }]);
	});

	it('may have jobs of nobody, orders of none, and orders that nobody can read', () => {
		const rows = [
			{ ...job, subject: 'nobody', order: null },
			{ ...job, order: '{oops' }
		];
		const { job: jobs } = withSubjects({ job: rows });
		expect(jobs![0]).to.include({ subject_kind: 'nobody', subject_id: 0, order: null });
		expect(jobs![1]).to.include({ order: '{oops' }).and.not.to.have.property('of_load');
	});

	it('that is of today stays as it is', () => {
		const tables = { job: [{ id: 1, subject_kind: 'client', subject_id: 2, order: '{}', of_load: null }], trial: [] };
		expect(withSubjects(tables)).to.deep.equal(tables);
	});
});
