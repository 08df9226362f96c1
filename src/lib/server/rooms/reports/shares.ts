/** Links to frozen versions: an unguessable token, of which only a hash is stored. */
import { createHash, timingSafeEqual } from 'node:crypto';
import { phraseHash, type OpenedShare } from './queries/shares';

export function isPhrase(stored: string, phrase: string): boolean {
	const salt = Buffer.from(stored.split('.')[0]!, 'base64url');
	const [own, typed] = [stored, phraseHash(phrase.trim(), salt)].map((text) => Buffer.from(text));
	return own!.length === typed!.length && timingSafeEqual(own!, typed!);
}

/** What a browser keeps once the phrase was right: of this link alone. */
export function passOf({ id, phrase }: OpenedShare, token: string): string {
	return createHash('sha256').update(`${id}.${phrase}.${token}`).digest('base64url');
}

/** Tries of one address in a minute before it has to wait. */
const MOST_TRIES = 30;

const MINUTE_MS = 60_000;

/** Counts tries that failed: by who tries, for a minute, in memory alone. */
export class TryLimit {
	#tries = new Map<string, number>();
	#since = 0;

	constructor(private readonly now: () => number = Date.now) {}

	isOver(who: string): boolean {
		this.#forget();
		return (this.#tries.get(who) ?? 0) >= MOST_TRIES;
	}

	note(who: string): void {
		this.#forget();
		this.#tries.set(who, (this.#tries.get(who) ?? 0) + 1);
	}

	#forget(): void {
		if (this.now() - this.#since < MINUTE_MS) return;
		this.#tries.clear();
		this.#since = this.now();
	}
}
