import { expect } from 'chai';
import { resolve } from 'node:path';
import { NotPossible } from '../../src/lib/server/base/refusal';
import { HeavyThread, type HeavyLimits } from '../../src/lib/server/runner/heavyThread';

describe('the thread for heavy work', function () {
	this.timeout(60_000);
	const entry = resolve('test/support/heavyProbe.ts');
	let thread: HeavyThread;
	const begin = (limits: Partial<HeavyLimits>) =>
		(thread = new HeavyThread(entry, '/nowhere', { lookMs: 50, ...limits }));
	afterEach(() => thread.end());

	const refused = async (call: Promise<unknown>) => {
		try {
			await call;
			return 'done';
		} catch (error) {
			expect(error).to.be.instanceOf(NotPossible);
			return (error as NotPossible).message;
		}
	};

	it('is replaced when something in it does not end; what waited behind is done', async () => {
		begin({ silentMs: 2500 });
		expect(await thread.call('echo', ['first'])).to.equal('first');
		const stuck = refused(thread.call('spin', []));
		const behind = [1, 2, 3].map((n) => thread.call('echo', [n]));
		expect(await stuck)
			.to.include('came to no end')
			.and.include('Nothing was changed');
		expect(await Promise.all(behind)).to.deep.equal([1, 2, 3]);
		expect(await thread.call('echo', ['after'])).to.equal('after');
	});

	it('gives up a call that waits for ever, although the thread answers', async () => {
		begin({ callMs: 1500 });
		const waiting = refused(thread.call('wait', []));
		expect(await thread.call('echo', [1])).to.equal(1);
		expect(await waiting).to.include('came to no end');
		expect(await thread.call('echo', [2])).to.equal(2);
	});

	it('outlives a call that fills its memory', async () => {
		begin({ memoryMb: 64 });
		expect(await refused(thread.call('fill', []))).to.include('more memory');
		expect(await thread.call('echo', ['after'])).to.equal('after');
	});
});
