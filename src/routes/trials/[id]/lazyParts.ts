/** The parts of a trial's sheet, fetched when they are opened; those that are printed are there at once. */
import type { Component } from 'svelte';
import type { PartId } from '$lib/server/rooms/trials/partsView';
import Arms from './Arms.svelte';
import Method from './Method.svelte';
import type { PartProps } from './partProps';

type PartModule = { default: Component<PartProps> };

const PARTS: Record<PartId, () => Promise<unknown>> = {
	why: () => import('./Why.svelte'),
	broke: () => import('./Broke.svelte'),
	fairness: () => import('./Fairness.svelte'),
	worth: () => import('./Worth.svelte'),
	shifts: () => import('./Shifts.svelte'),
	table: () => import('./ShiftTable.svelte'),
	frames: () => import('./Frames.svelte'),
	held: () => import('./Held.svelte'),
	arms: () => Promise.resolve({ default: Arms }),
	method: () => Promise.resolve({ default: Method }),
	loads: () => import('./LoadTable.svelte'),
	repeats: () => import('./Repeats.svelte')
};

export const fetchPart = (id: PartId) => PARTS[id]() as Promise<PartModule>;

/** Parts that are there with the first screen. @param opened by the address */
export async function fetchOpened(opened: readonly string[]): Promise<Partial<Record<PartId, Component<PartProps>>>> {
	const known = (Object.keys(PARTS) as PartId[]).filter((id) => opened.includes(id));
	const printed = { arms: Arms, method: Method } as unknown as Partial<Record<PartId, Component<PartProps>>>;
	const parts = await Promise.all(known.map(async (id) => [id, (await fetchPart(id)).default] as const));
	return { ...printed, ...Object.fromEntries(parts) };
}
