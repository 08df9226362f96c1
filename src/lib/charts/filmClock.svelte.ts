/** The moment that one film or several show, and how it moves on. */

export const SPEEDS = [
	[1, 'True speed'],
	[0.5, 'Half speed'],
	[0.25, 'Quarter speed']
] as const;

export class FilmClock {
	/** ms since the navigation; it stands at the end until somebody plays. */
	at = $state(0);
	speed = $state(1);
	isPlaying = $state(false);
	#endMs: number;

	constructor(endMs: number) {
		this.#endMs = endMs;
		this.at = endMs;
	}

	get endMs(): number {
		return this.#endMs;
	}

	get isAtEnd(): boolean {
		return this.at >= this.#endMs;
	}

	/** @param pictures all of them are there before the film runs, else it would show the network of the analyst */
	async toggle(pictures: readonly string[]): Promise<void> {
		if (this.isPlaying) return void (this.isPlaying = false);
		await Promise.all(
			pictures.map((src) => new Promise((done) => Object.assign(new Image(), { onload: done, onerror: done, src })))
		);
		if (this.isAtEnd) this.at = 0;
		this.isPlaying = true;
		let last = performance.now();
		const tick = (now: number) => {
			if (!this.isPlaying) return;
			this.at = Math.min(this.#endMs, this.at + (now - last) * this.speed);
			last = now;
			if (this.isAtEnd) this.isPlaying = false;
			else requestAnimationFrame(tick);
		};
		requestAnimationFrame(tick);
	}

	/** By hand: the film stands still there. */
	seek(ms: number): void {
		if (Math.abs(ms - this.at) < 1) return;
		this.isPlaying = false;
		this.at = ms;
	}
}
