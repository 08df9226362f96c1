/** The components of a load's sheet's parts, each fetched with its part. */
import type { Component } from 'svelte';
import { fetchComponents } from '$lib/parts/partComponents';
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

type Shared = Omit<PartProps<LoadPartId>, 'data'>;

export const fetchOpened = (shown: LoadParts) => fetchComponents<LoadPartId, Shared>(COMPONENTS, shown);
