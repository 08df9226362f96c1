/** One message for many listeners. */

/** @throws when it can hear no more */
export type Listener = (message: string) => void;

export class Broadcast {
	readonly #listeners = new Set<Listener>();

	get size(): number {
		return this.#listeners.size;
	}

	add(listener: Listener): void {
		this.#listeners.add(listener);
	}

	remove(listener: Listener): void {
		this.#listeners.delete(listener);
	}

	/** A listener that can hear no more is let go, and keeps nothing from the others. */
	tell(message: string): void {
		for (const listener of [...this.#listeners])
			try {
				listener(message);
			} catch {
				this.#listeners.delete(listener);
			}
	}
}
