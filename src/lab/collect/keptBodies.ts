/** The files of a load, with what the settled page draws of them. */
import * as v from 'valibot';
import { Drawn } from '$core/load/record/bodies';
import type { MeasuredLoad } from '$core/load/record/record';
import type { Visit } from '../visit';
import type { ReadBodies } from './bodies';

/** A page that does not answer leaves open what it draws. */
export async function keptBodies(visit: Visit, { kept }: ReadBodies): Promise<NonNullable<MeasuredLoad['bodies']>> {
	await visit.world.addTools();
	const drawn = v.safeParse(Drawn, await visit.call('drawn').catch(() => null));
	return {
		kept: { files: kept.map(({ file }) => file), drawn: drawn.success ? drawn.output : null },
		files: kept.map(({ bytes }) => bytes)
	};
}
