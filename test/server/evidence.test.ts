import { expect } from 'chai';
import sharp from 'sharp';
import { excludeLoad } from '../../src/lib/server/rooms/loads/commands';
import { pauseTrial } from '../../src/lib/server/rooms/trials/commands';
import { deriveEvidence, findDifferencePicture, findEvidence } from '../../src/lib/server/rooms/trials/evidence';
import { requestOf } from '../support/records';
import { useQueue } from '../support/queue';

describe('evidence of trials', () => {
	const q = useQueue();

	it('have no evidence of rounds that no look has reached', async () => {
		const id = q.now.make({ rounds: 4, primary: ['wire'] });
		for (let i = 0; i < 4; i++) {
			const job = q.now.lease()!;
			const requests = [requestOf({ type: 'document', wireBytes: 1000 * job.armId })];
			q.now.finish(job, { figures: { wire: 1000 * job.armId }, requests });
		}
		pauseTrial(q.now.db, id);
		await deriveEvidence(q.now.db, id);
		expect(findEvidence(q.now.db, id)!.body.arms.map((evidence) => evidence.why)).to.deep.equal([null]);
	});

	it('have their evidence worked out once, and again when the loads change', async () => {
		const id = q.now.make({ rounds: 2, primary: ['wire'] });
		const baseline = q.now.trial(id).design.arms[0]!.id;
		const shot = (red: number) =>
			sharp({ create: { width: 120, height: 80, channels: 3, background: '#fff' } })
				.composite([
					{
						input: { create: { width: 60, height: 80, channels: 3, background: { r: red, g: 20, b: 20 } } },
						left: 0,
						top: 0
					}
				])
				.webp({ lossless: true })
				.toBuffer();
		const pictures = [await shot(20), await shot(240)];
		for (let job = q.now.lease(); job; job = q.now.lease()) {
			const isBaseline = job.armId === baseline;
			const url = isBaseline ? 'http://a.test/' : 'http://b.test/x';
			const requests = [
				requestOf({ url, type: 'document', wireBytes: 1000 }),
				...(isBaseline ? [] : [requestOf({ url: 'https://bell.test/b.js', type: 'script', wireBytes: 40_000 })])
			];
			const existing = { url, finalUrl: url, requests, figures: { wire: isBaseline ? 1000 : 41_000 } };
			q.now.finish(job, existing, pictures[isBaseline ? 0 : 1]!);
		}
		await deriveEvidence(q.now.db, id);
		const { body, isOld } = findEvidence(q.now.db, id)!;
		expect(isOld).to.equal(false);
		const [arm] = body.arms;
		expect(arm!.why!.causes[0]!.subject).to.equal('bell.test');
		expect(arm!.regressions.pictureShare).to.be.closeTo(0.5, 0.03);
		expect(arm!.fairness.find((line) => line.id === 'picture')!.state).to.equal('differs');
		expect(findDifferencePicture(q.now.db, id, arm!.picture!)!.subarray(8, 12).toString()).to.equal('WEBP');
		excludeLoad(q.now.db, q.now.loads(id)[0]!.id, 'why not');
		expect(findEvidence(q.now.db, id)!.isOld).to.equal(true);
	});
});
