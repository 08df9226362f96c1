/** The components of a trial's sheet's parts, each fetched with its part. */
import type { Component } from 'svelte';
import { fetchComponents } from '$lib/parts/partComponents';
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

type Shared = Omit<PartProps<PartId>, 'data'>;

export const fetchOpened = (shown: SheetParts) => fetchComponents<PartId, Shared>(COMPONENTS, shown);
