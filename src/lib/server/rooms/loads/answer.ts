/** A load and its record by the id in a URL. */
import type { LoadRecord } from '$core/load/record/record';
import type { Db } from '../../base/db/connection';
import { findLoad, type LoadSummary } from './queries/loads';
import { findRecord } from './loads';
import { NotPossible } from '../../base/refusal';
import { idFrom } from '../../http/api';

export function loadFrom(db: Db, text: string): { load: LoadSummary; record: LoadRecord } {
	const id = idFrom(text, 'load');
	const load = findLoad(db, id);
	const record = load && findRecord(db, id);
	if (!record) throw new NotPossible(404, `There is no load ${text}.`);
	return { load, record };
}

/** A stored picture never changes. */
export function pictureAnswer(image: Buffer | null, type = 'image/webp', forEver = true): Response {
	if (!image) throw new NotPossible(404, 'There is no such picture.');
	return new Response(new Uint8Array(image), {
		headers: {
			'content-type': type,
			'cache-control': forEver ? 'private, max-age=31536000, immutable' : 'private, no-cache'
		}
	});
}
