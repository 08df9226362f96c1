/** A marker as a form has it. */
import * as v from 'valibot';
import type { Db } from '../../base/db/connection';
import { parsed } from '../../base/parse';
import { Text } from '../../http/fields';
import type { Typed } from '../../http/form';
import { settingsFileOf } from '../../http/settingsFile';
import { addMarker } from './markers';
import { MarkerInput } from './queries/markers';

export const MarkerFields = v.object({ day: Text, words: Text, path: Text });

/** @throws Invalid with what is wrong at its field */
export async function addMarkerFrom(db: Db, siteId: number, typed: Typed<typeof MarkerFields>, body: FormData) {
	addMarker(db, siteId, parsed(MarkerInput, { ...typed, file: await settingsFileOf(body) }));
}
