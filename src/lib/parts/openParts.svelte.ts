/** Which parts of a sheet are open; kept in the address, so that a sheet can be linked as it is read. */
import { getContext, setContext } from 'svelte';
import { replaceState } from '$app/navigation';
import { page } from '$app/state';
import { parseFragment, queryWithOpen } from '$lib/fragmentText';

const KEY = Symbol('open parts');

export class OpenParts {
	private ids = $state<string[]>([]);

	constructor(asked: string | null) {
		this.ids = asked ? asked.split(',') : [];
	}

	isOpen(id: string): boolean {
		return this.ids.includes(id);
	}

	set(id: string, open: boolean): void {
		if (open === this.isOpen(id)) return;
		this.ids = open ? [...this.ids, id] : this.ids.filter((other) => other !== id);
		this.keep();
	}

	/** Open a part and bring it into view. */
	goTo(id: string): void {
		this.set(id, true);
		requestAnimationFrame(() => document.getElementById(id)?.scrollIntoView());
	}

	/** A fragment names a part: `#why`, `#timeline&owner=x`. */
	followFragment(): void {
		const { section } = parseFragment(location.hash);
		if (section && document.getElementById(section)) this.goTo(section);
	}

	private keep(): void {
		replaceState(location.pathname + queryWithOpen(location.search, this.ids) + location.hash, page.state);
	}
}

export function provideOpenParts(asked: string | null): OpenParts {
	return setContext(KEY, new OpenParts(asked));
}

export const openParts = (): OpenParts => getContext(KEY);
