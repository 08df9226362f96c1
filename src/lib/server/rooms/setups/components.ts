/** The agency's library of components, and which of them a site runs on. */
import type { Db } from '../../base/db/connection';
import { putInBin } from '../../base/storage/bin';
import { existingComponent, type DeletedComponent, takeComponent } from './queries/components';

/** Into the bin. Sites lose it; setups of trials keep what they had. @returns its number in the bin */
export function deleteComponent(db: Db, id: number): number {
	return db
		.transaction(() => {
			const { id: _id, ...component } = existingComponent(db, id);
			const body: DeletedComponent = { ...component, sites: takeComponent(db, id) };
			return putInBin(db, { kind: 'component', name: component.name, clientId: null, body });
		})
		.immediate();
}
