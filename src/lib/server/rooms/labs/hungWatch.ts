/** Whether a lab hangs, as another process sees it: by a clock that nobody sets; no jump of the time ends it. */
import type { LabState } from './queries/labs';

type Seen = Pick<LabState, 'id' | 'beatAt' | 'loadUntil'>;

export class HungWatch {
	#id = '';
	#beatAt = '';
	/** When its last beat was first seen, ms of the monotonic clock. */
	#heardAt = 0;
	#loadUntil: string | null = null;
	/** When its load must be over, ms of the monotonic clock. */
	#dueAt = Infinity;

	/** @param patienceMs how long it may be silent, or its load be late */
	constructor(
		private readonly patienceMs: number,
		private readonly monotonic: () => number = () => performance.now(),
		private readonly wall: () => number = Date.now
	) {}

	/** Asked again and again. */
	isHung({ id, beatAt, loadUntil }: Seen): boolean {
		const now = this.monotonic();
		if (id !== this.#id || beatAt !== this.#beatAt) this.#heardAt = now;
		// What is left of its time is read once, when the load is first seen.
		if (id !== this.#id || loadUntil !== this.#loadUntil)
			this.#dueAt = loadUntil === null ? Infinity : now + Date.parse(loadUntil) - this.wall();
		[this.#id, this.#beatAt, this.#loadUntil] = [id, beatAt, loadUntil];
		return Math.max(now - this.#heardAt, now - this.#dueAt) > this.patienceMs;
	}
}
