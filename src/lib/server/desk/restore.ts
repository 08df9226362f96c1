/** Takes what was deleted back out of the bin. */
import type { Block } from '$core/report/document';
import type { Db } from '../db/connection';
import { restoreMarker, type DeletedMarker } from '../field/markers';
import { restoreBlock } from '../reports/commands';
import { restoreComponent, type DeletedComponent } from '../setups/components';
import { takeFromBin } from '../storage/bin';

/** @throws NotPossible for what is not in the bin, or has no place any more: it then stays there */
export function restoreBinned(db: Db, id: number): void {
	db.transaction(() => {
		const { kind, body } = takeFromBin(db, id);
		if (kind === 'marker') restoreMarker(db, body as DeletedMarker);
		else if (kind === 'component') restoreComponent(db, body as DeletedComponent);
		else restoreBlock(db, body as { report: number; position: number; block: Block });
	}).immediate();
}
