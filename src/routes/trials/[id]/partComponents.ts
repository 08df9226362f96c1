/** The components of a trial's sheet's parts, each fetched with its part. */
import type { Component } from 'svelte';
import type { PartId } from '$lib/server/rooms/trials/sheet/lines';
import type { SheetParts } from '$lib/server/rooms/trials/sheet/parts';
import type { PartProps } from './partProps';

const COMPONENTS = {
	why: () => import('./Why.svelte'),
	broke: () => import('./Broke.svelte'),
	fairness: () => import('./Fairness.svelte'),
	worth: () => import('./Worth.svelte'),
	shifts: () => import('./Shifts.svelte'),
	table: () => import('./ShiftTable.svelte'),
	frames: () => import('./Frames.svelte'),
	held: () => import('./Held.svelte'),
	arms: () => import('./Arms.svelte'),
	method: () => import('./Method.svelte'),
	loads: () => import('./LoadTable.svelte'),
	repeats: () => import('./Repeats.svelte')
} satisfies { [Id in PartId]: () => Promise<{ default: Component<PartProps<Id>> }> };

/** As the sheet shows it, with the data of its own part: that they belong together is known above. */
export type PartComponent = Component<Omit<PartProps<PartId>, 'data'> & { data: object }>;

export async function fetchComponents(shown: SheetParts): Promise<Partial<Record<PartId, PartComponent>>> {
	const ids = Object.keys(shown) as PartId[];
	const parts = ids.map(async (id) => [id, (await COMPONENTS[id]()).default as unknown as PartComponent] as const);
	return Object.fromEntries(await Promise.all(parts));
}
