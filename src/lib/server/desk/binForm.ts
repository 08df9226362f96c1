/** Deleting and taking back, as forms ask for it. */
import { deleteMarker } from '../rooms/field/markers';
import { idFrom } from '../http/api';
import { ROW } from '../http/fields';
import { formAction } from '../http/form';
import { findBinned } from '../base/storage/bin';
import { restoreBinned } from './restore';

interface Event {
	request: Request;
	locals: Pick<App.Locals, 'db'>;
}

/** With where the marker lies now, for taking it back. */
export const unmarkAction = formAction(ROW, ({ id }, { locals: { db } }: Event) => ({
	binned: findBinned(db, deleteMarker(db, idFrom(id, 'marker')))!
}));

export const restoreAction = formAction(ROW, ({ id }, { locals }: Event) => {
	restoreBinned(locals.db, idFrom(id, 'bin'));
	return { restored: true };
});
