import { expect } from 'chai';
import { createHash } from 'node:crypto';
import {
	artifactSize,
	deleteArtifacts,
	findArtifact,
	listArtifacts,
	storeArtifact
} from '../../src/lib/server/base/storage/artifacts';
import { deleteTrial } from '../../src/lib/server/rooms/trials/commands';
import { useQueue } from '../support/queue';

const PICTURE = Buffer.from('a picture');

describe('artifacts', () => {
	const q = useQueue();
	const count = () => q.now.value<number>('SELECT count(*) FROM artifact');

	it('keep equal bytes once, under their SHA-256, whoever uses them', () => {
		storeArtifact(q.now.db, { owner: { kind: 'load', id: 1 }, role: 'frame', position: 0 }, 'image/webp', PICTURE);
		storeArtifact(q.now.db, { owner: { kind: 'load', id: 1 }, role: 'frame', position: 1 }, 'image/webp', PICTURE);
		storeArtifact(q.now.db, { owner: { kind: 'load', id: 2 }, role: 'picture' }, 'image/webp', PICTURE);
		expect(count()).to.equal(1);
		expect(q.now.value('SELECT sha256 FROM artifact')).to.equal(createHash('sha256').update(PICTURE).digest('hex'));
		expect(listArtifacts(q.now.db, { kind: 'load', id: 1 }, 'frame')).to.deep.equal([PICTURE, PICTURE]);
		expect(artifactSize(q.now.db, { owner: { kind: 'load', id: 2 }, role: 'picture' })).to.equal(PICTURE.length);
		expect(artifactSize(q.now.db, { owner: { kind: 'load', id: 3 }, role: 'picture' })).to.equal(0);
	});

	it('go with their last use, and no sooner', () => {
		storeArtifact(q.now.db, { owner: { kind: 'trial', id: 1 }, role: 'difference/desktop-2' }, 'image/webp', PICTURE);
		storeArtifact(q.now.db, { owner: { kind: 'trial', id: 1 }, role: 'difference/phone-2' }, 'image/webp', PICTURE);
		storeArtifact(q.now.db, { owner: { kind: 'trial', id: 2 }, role: 'difference/phone-2' }, 'image/webp', PICTURE);
		deleteArtifacts(q.now.db, { kind: 'trial', id: 1 }, 'difference/');
		expect([
			count(),
			findArtifact(q.now.db, { owner: { kind: 'trial', id: 1 }, role: 'difference/phone-2' })
		]).to.deep.equal([1, null]);
		deleteArtifacts(q.now.db, { kind: 'trial', id: 2 }, 'difference/');
		expect(count()).to.equal(0);
	});

	it('are replaced under the same use, and the old bytes go', () => {
		const use = { owner: { kind: 'trial', id: 1 }, role: 'difference/desktop-2' } as const;
		storeArtifact(q.now.db, use, 'image/webp', PICTURE);
		storeArtifact(q.now.db, use, 'image/webp', Buffer.from('another'));
		expect(findArtifact(q.now.db, use)!.toString()).to.equal('another');
		expect(count()).to.equal(1);
	});

	it('of a trial go with it, those that another trial shares stay', () => {
		const [first, second] = [q.now.make({ rounds: 1 }), q.now.make({ rounds: 1 })];
		q.now.runAll();
		for (const owner of [first, second].map((id) => ({ kind: 'trial', id }) as const))
			storeArtifact(q.now.db, { owner, role: 'difference/desktop-2' }, 'image/webp', PICTURE);
		deleteTrial(q.now.db, first);
		expect(
			findArtifact(q.now.db, { owner: { kind: 'trial', id: second }, role: 'difference/desktop-2' })
		).to.deep.equal(PICTURE);
		expect(q.now.value('SELECT count(*) FROM artifact_use WHERE owner_id = ?', first)).to.equal(0);
		deleteTrial(q.now.db, second);
		expect([count(), q.now.value('SELECT count(*) FROM artifact_use')]).to.deep.equal([0, 0]);
	});
});
