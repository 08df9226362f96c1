/** Deleting and taking back, as forms ask for it. */
import type { Db } from '../base/db/connection';
import { deleteMarker } from '../rooms/field/markers';
import { idFrom } from '../http/api';
import { textOf } from '../http/form';
import { findBinned, type Binned } from '../base/storage/bin';
import { restoreBinned } from './restore';

/** @throws NotPossible for a marker that is not there @returns where it lies now, for taking it back */
export function deleteMarkerFrom(db: Db, form: FormData): { binned: Binned } {
	return { binned: findBinned(db, deleteMarker(db, idFrom(textOf(form, 'id'), 'marker')))! };
}

/** @throws NotPossible for what cannot be taken back */
export function restoreFrom(db: Db, form: FormData): { restored: true } {
	restoreBinned(db, idFrom(textOf(form, 'id'), 'bin'));
	return { restored: true };
}
