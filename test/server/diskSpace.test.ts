import { expect } from 'chai';
import { messageOf } from '../../src/lib/server/rooms/trials/answer';
import { startTrial } from '../../src/lib/server/rooms/trials/commands';
import { stopForFullDisk, storeTrialLoad } from '../../src/lib/server/rooms/trials/progress';
import { isFull } from '../../src/lib/server/runner/diskSpace';
import { finishJob, giveBack } from '../../src/lib/server/base/queue/jobs';
import { measuredLoad, useQueue } from '../support/queue';

describe('trials on a full disk', () => {
	const q = useQueue();

	it('end clearly when the disk is full: nothing is half written, and what was measured stays', () => {
		const id = q.now.make();
		q.now.finish(q.now.lease()!);
		const job = q.now.lease()!;
		const pages = q.now.db.pragma('page_count', { simple: true }) as number;
		q.now.db.pragma(`max_page_count = ${pages}`);
		let caught: unknown = null;
		try {
			q.now.db
				.transaction(() => {
					finishJob(q.now.db, job.job, 'me');
					// Nothing that gzip could make small.
					const noise = Buffer.from(Array.from({ length: 400_000 }, (_, i) => (i * 2_654_435_761) >>> 13));
					storeTrialLoad(q.now.db, job.job, job.job.slot!, measuredLoad({}, noise));
				})
				.immediate();
		} catch (error) {
			caught = error;
		}
		expect(isFull(caught)).to.equal(true);
		giveBack(q.now.db, 'me');
		stopForFullDisk(q.now.db, id);
		expect(q.now.trial(id).status).to.equal('stopped');
		expect(messageOf(q.now.db, q.now.trial(id))).to.match(/disk is full.*Make room/);
		expect(q.now.loads(id)).to.have.length(1);
		expect(q.now.db.pragma('integrity_check', { simple: true })).to.equal('ok');
		q.now.db.pragma(`max_page_count = ${pages + 10_000}`);
		startTrial(q.now.db, id);
		expect(q.now.runAll()).to.have.length(5);
		expect(q.now.trial(id).status).to.equal('done');
	});
});
