/** Which parts of a sheet are open; kept in the address, from which the server reads what it has to send of them. */
import { getContext, setContext } from 'svelte';
import { page } from '$app/state';
import { gotoLoaded } from '$lib/gotoLoaded';
import { openIn, parseFragment, queryWithOpen } from '$lib/fragmentText';

const KEY = Symbol('open parts');

export class OpenParts {
	private ids = $state<string[]>([]);

	constructor(search: URLSearchParams) {
		this.ids = openIn(search);
	}

	isOpen(id: string): boolean {
		return this.ids.includes(id);
	}

	async set(id: string, open: boolean): Promise<void> {
		if (open) return this.openAll([id]);
		const rest = this.ids.filter((other) => other !== id);
		await this.#change(rest, (shown) => !(id in shown));
	}

	async openAll(ids: readonly string[]): Promise<void> {
		const opened = ids.filter((id) => !this.isOpen(id));
		await this.#change([...this.ids, ...opened], (shown) => opened.every((id) => id in shown));
	}

	/** @param isThere whether the data fit, of a sheet that fetches its parts; without them all stays as it was */
	async #change(ids: string[], isThere: (shown: object) => boolean): Promise<void> {
		if (ids.length === this.ids.length) return;
		const before = this.ids;
		this.ids = ids;
		const address = page.url.pathname + queryWithOpen(page.url.search, ids) + location.hash;
		const hasCome = await gotoLoaded(address, ({ shown }) => typeof shown !== 'object' || isThere(shown!));
		if (!hasCome) this.ids = before;
	}

	/** Open a part and bring it into view. */
	async goTo(id: string): Promise<void> {
		await this.set(id, true);
		requestAnimationFrame(() => document.getElementById(id)?.scrollIntoView());
	}

	/** What the address says: parts by their names, and one by its fragment, `#why` or `#timeline&owner=x`. */
	async followAddress(search: URLSearchParams): Promise<void> {
		this.ids = openIn(search);
		const { section } = parseFragment(location.hash);
		if (section && document.getElementById(section)) await this.goTo(section);
	}
}

export const provideOpenParts = (search: URLSearchParams): OpenParts => setContext(KEY, new OpenParts(search));

export const openParts = (): OpenParts => getContext(KEY);
