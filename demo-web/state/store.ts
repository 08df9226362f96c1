/**
 * The state of all sites: published and staged, in memory and in one file, with a version that every response
 * carries.
 */
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { allowedOnly, type SiteState } from './switches';

interface Saved {
	version: number;
	published: Record<string, Partial<SiteState>>;
	staged: Record<string, Partial<SiteState>>;
}

/** Of a file of an earlier version: switches and values that there still are. */
const allowedStates = (states: Record<string, Partial<SiteState>>) =>
	Object.fromEntries(Object.entries(states).map(([host, change]) => [host, allowedOnly(change)]));

export class StateStore {
	#saved: Saved = { version: 1, published: {}, staged: {} };

	/**
	 * @param defaults full state of each site @param file null keeps everything in memory
	 * @param onChange called after every change, so that caches and sleeping servers begin anew
	 */
	constructor(
		private readonly defaults: ReadonlyMap<string, SiteState>,
		private readonly file: string | null,
		private readonly onChange: () => void = () => undefined
	) {
		if (!file) return;
		try {
			const { version, published, staged } = JSON.parse(readFileSync(file, 'utf8')) as Saved;
			this.#saved = { version, published: allowedStates(published), staged: allowedStates(staged) };
		} catch {
			// First start, or a file that cannot be read: the defaults hold.
		}
	}

	get version(): number {
		return this.#saved.version;
	}

	get hosts(): string[] {
		return [...this.defaults.keys()];
	}

	has(host: string): boolean {
		return this.defaults.has(host);
	}

	published(host: string): SiteState {
		return { ...this.defaults.get(host)!, ...this.#saved.published[host] };
	}

	/** What the preview host shows: the published state with the staged changes. */
	staged(host: string): SiteState {
		return { ...this.published(host), ...this.#saved.staged[host] };
	}

	stagedChanges(host: string): Partial<SiteState> {
		return this.#saved.staged[host] ?? {};
	}

	change(host: string, change: Partial<SiteState>, where: 'published' | 'staged'): void {
		const side = this.#saved[where];
		side[host] = { ...side[host], ...change };
		this.#save();
	}

	/** Staged changes go live. */
	publish(host: string): void {
		this.#saved.published[host] = { ...this.#saved.published[host], ...this.#saved.staged[host] };
		delete this.#saved.staged[host];
		this.#save();
	}

	reset(): void {
		this.#saved = { version: this.#saved.version, published: {}, staged: {} };
		this.#save();
	}

	#save(): void {
		this.#saved.version++;
		this.onChange();
		if (!this.file) return;
		mkdirSync(dirname(this.file), { recursive: true });
		writeFileSync(`${this.file}.new`, JSON.stringify(this.#saved, null, '\t'));
		renameSync(`${this.file}.new`, this.file);
	}
}
