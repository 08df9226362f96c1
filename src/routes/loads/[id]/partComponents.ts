/** The components of a load's sheet's parts, each fetched with its part. */
import type { Component } from 'svelte';
import type { LoadPartId } from '$lib/server/rooms/loads/partLines';
import type { LoadParts } from '$lib/server/rooms/loads/view';
import type { PartProps } from './partProps';

const COMPONENTS = {
	steps: () => import('./Steps.svelte'),
	picture: () => import('./Picture.svelte'),
	frames: () => import('./Frames.svelte'),
	weight: () => import('./Weight.svelte'),
	thread: () => import('./Thread.svelte'),
	held: () => import('./HeldBack.svelte'),
	outages: () => import('./Outages.svelte'),
	taps: () => import('./Taps.svelte'),
	identity: () => import('./Identity.svelte'),
	checks: () => import('./Checks.svelte'),
	facts: () => import('./Facts.svelte'),
	figures: () => import('./Figures.svelte'),
	circumstances: () => import('./Circumstances.svelte')
} satisfies { [Id in LoadPartId]: () => Promise<{ default: Component<PartProps<Id>> }> };

/** As the sheet shows it, with the data of its own part: that they belong together is known above. */
export type PartComponent = Component<Omit<PartProps<LoadPartId>, 'data'> & { data: object }>;

export async function fetchComponents(shown: LoadParts): Promise<Partial<Record<LoadPartId, PartComponent>>> {
	const ids = Object.keys(shown) as LoadPartId[];
	const parts = ids.map(async (id) => [id, (await COMPONENTS[id]()).default as unknown as PartComponent] as const);
	return Object.fromEntries(await Promise.all(parts));
}
