/** The parts of a load's sheet, fetched when they are opened; those that are printed are there at once. */
import type { Component } from 'svelte';
import type { LoadPartId } from '$lib/server/rooms/loads/partsView';

/** Each part takes what is its own: see the sheet. */
export type PartComponent = Component<Record<string, unknown>>;

type FetchedPart = Exclude<LoadPartId, 'figures' | 'circumstances'>;

const PARTS: Record<FetchedPart, () => Promise<unknown>> = {
	steps: () => import('./Steps.svelte'),
	picture: () => import('$lib/charts/PagePicture.svelte'),
	frames: () => import('./Frames.svelte'),
	weight: () => import('./Weight.svelte'),
	thread: () => import('$lib/charts/MainThread.svelte'),
	held: () => import('./HeldBack.svelte'),
	outages: () => import('./Outages.svelte'),
	taps: () => import('./Taps.svelte'),
	identity: () => import('./Identity.svelte'),
	checks: () => import('./Checks.svelte'),
	facts: () => import('./Facts.svelte')
};

export const isFetched = (id: LoadPartId): id is FetchedPart => Object.hasOwn(PARTS, id);

export const fetchPart = (id: FetchedPart) => PARTS[id]() as Promise<{ default: PartComponent }>;

/** Parts that are there with the first screen. @param opened by the address */
export async function fetchOpened(opened: readonly string[]): Promise<Partial<Record<LoadPartId, PartComponent>>> {
	const known = (Object.keys(PARTS) as FetchedPart[]).filter((id) => opened.includes(id));
	const parts = await Promise.all(known.map(async (id) => [id, (await fetchPart(id)).default] as const));
	return Object.fromEntries(parts);
}
