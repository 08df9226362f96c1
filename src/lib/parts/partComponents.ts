/** The components of a sheet's parts, each fetched with its part. */
import type { Component } from 'svelte';

/** As a sheet shows it, with the data of its own part: that they belong together is known to whoever lists them. */
export type PartComponent<Shared> = Component<Shared & { data: object }>;

/** @param components how each is fetched @param shown the parts that have come */
export async function fetchComponents<Id extends string, Shared extends Record<string, unknown>>(
	components: Record<Id, () => Promise<{ default: unknown }>>,
	shown: Partial<Record<Id, unknown>>
): Promise<Partial<Record<Id, PartComponent<Shared>>>> {
	const ids = Object.keys(shown) as Id[];
	const parts = ids.map(async (id) => [id, (await components[id]()).default as PartComponent<Shared>] as const);
	return Object.fromEntries(await Promise.all(parts)) as Partial<Record<Id, PartComponent<Shared>>>;
}
