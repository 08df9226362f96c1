/** A marker as a form has it. */
import * as v from 'valibot';
import type { Db } from '../../base/db/connection';
import { textOf, withTyped } from '../../http/form';
import { settingsFileOf } from '../../http/settingsFile';
import { NotPossible } from '../../base/refusal';
import { addMarker, MarkerInput } from './markers';

/** @returns what was typed and what is wrong with it, or nothing */
export async function addMarkerFrom(db: Db, siteId: number, form: FormData) {
	const typed = { day: textOf(form, 'day'), words: textOf(form, 'words'), path: textOf(form, 'path') };
	const file = await settingsFileOf(form);
	return withTyped(typed, () => {
		const read = v.safeParse(MarkerInput, { ...typed, file });
		if (!read.success) throw new NotPossible(422, read.issues[0].message, v.getDotPath(read.issues[0]) ?? '');
		addMarker(db, siteId, read.output);
	});
}
