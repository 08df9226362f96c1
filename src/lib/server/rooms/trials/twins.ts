/** Pages as they came once, for rehearsals: a folder of the data, dropped with its trial. */
import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Db } from '../../base/db/connection';
import { findTrial } from './trial';

/** In the data folder; each is named by its trial and conditions. */
export const TWINS = 'twins';

/** Of trials that are gone. @returns how many were dropped */
export function dropOrphanTwins(db: Db, dataFolder: string): number {
	const folder = join(dataFolder, TWINS);
	if (!existsSync(folder)) return 0;
	const orphans = readdirSync(folder).filter((name) => !findTrial(db, parseInt(name, 10) || 0));
	for (const name of orphans) rmSync(join(folder, name), { recursive: true, force: true });
	return orphans.length;
}
