import { expect } from 'chai';
import { setTimeout as pause } from 'node:timers/promises';
import { afterPaint } from '../../src/lib/afterPaint';

describe('work after a paint', () => {
	it('is done once a frame was shown, in a task of its own, in the order in which it was asked for', async () => {
		const own = globalThis as unknown as Record<string, unknown>;
		const before = own.requestAnimationFrame;
		const frames: (() => void)[] = [];
		own.requestAnimationFrame = (next: () => void) => frames.push(next);
		try {
			const done: number[] = [];
			afterPaint(() => done.push(1));
			afterPaint(() => done.push(2));
			await pause(5);
			expect(done, 'no frame yet').to.deep.equal([]);
			frames.forEach((show) => show());
			expect(done, 'within the frame').to.deep.equal([]);
			await pause(5);
			expect(done).to.deep.equal([1, 2]);
		} finally {
			own.requestAnimationFrame = before;
		}
	});
});
