/** Which parts of a sheet are open; kept in the address, from which the server reads what it has to send of them. */
import { getContext, setContext } from 'svelte';
import { goto } from '$app/navigation';
import { page } from '$app/state';
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
		await this.#keep(this.ids.filter((other) => other !== id));
	}

	async openAll(ids: readonly string[]): Promise<void> {
		await this.#keep([...this.ids, ...ids.filter((id) => !this.isOpen(id))]);
	}

	async #keep(ids: string[]): Promise<void> {
		if (ids.length === this.ids.length) return;
		this.ids = ids;
		const address = page.url.pathname + queryWithOpen(page.url.search, this.ids) + location.hash;
		await goto(address, { replaceState: true, noScroll: true, keepFocus: true });
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
