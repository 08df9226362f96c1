/** Takes what was deleted back out of the bin. */
import type { Block } from '$core/report/document';
import type { Db } from '../base/db/connection';
import { restoreMarker } from '../rooms/field/markers';
import type { DeletedMarker } from '../rooms/field/view';
import { restoreBlock } from '../rooms/reports/commands';
import { takeFromBin } from '../base/storage/bin';
import { restoreComponent, type DeletedComponent } from '../rooms/setups/view';

/** @throws NotPossible for what is not in the bin, or has no place any more: it then stays there */
export function restoreBinned(db: Db, id: number): void {
	db.transaction(() => {
		const { kind, body } = takeFromBin(db, id);
		if (kind === 'marker') restoreMarker(db, body as DeletedMarker);
		else if (kind === 'component') restoreComponent(db, body as DeletedComponent);
		else restoreBlock(db, body as { report: number; position: number; block: Block });
	}).immediate();
}
