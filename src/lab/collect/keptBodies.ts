/** Bodies of a page that has settled; where the files are kept, with what it draws of them. */
import * as v from 'valibot';
import type { UnusedBytes } from '$core/load/record/assemble';
import { Drawn } from '$core/load/record/bodies';
import type { MeasuredLoad } from '$core/load/record/record';
import type { Visit } from '../visit';
import { readBodies, type ReadBodies } from './bodies';

/** Longest time for reading bodies, ms. */
const WITHIN_MS = 4000;
/** The same where the files themselves are kept. */
const KEPT_WITHIN_MS = 10_000;

interface Bodies {
	bodies: ReadBodies | null;
	/** Null unless they are asked for. */
	kept: MeasuredLoad['bodies'] | null;
}

export const NO_BODIES: Bodies = { bodies: null, kept: null };

export async function bodiesOf(visit: Visit, keep: boolean, unused: UnusedBytes | null): Promise<Bodies> {
	const untilMoment = performance.now() + (keep ? KEPT_WITHIN_MS : WITHIN_MS);
	const bodies = await readBodies(visit.session, visit.network, { untilMoment, keep, unused });
	return { bodies, kept: keep ? await keptFiles(visit, bodies) : null };
}

/** A page that does not answer leaves open what it draws. */
async function keptFiles(visit: Visit, { kept }: ReadBodies): Promise<MeasuredLoad['bodies']> {
	await visit.world.addTools();
	const drawn = v.safeParse(Drawn, await visit.call('drawn').catch(() => null));
	return {
		kept: { files: kept.map(({ file }) => file), drawn: drawn.success ? drawn.output : null },
		files: kept.map(({ bytes }) => bytes)
	};
}
