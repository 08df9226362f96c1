/** Endpoints that do one thing to a trial. */
import { json, type RequestEvent } from '@sveltejs/kit';
import type { Db } from '../../../lib/server/base/db/connection';
import { answering, idFrom } from '../../../lib/server/http/api';

export function trialAction(act: (db: Db, id: number) => void) {
	return ({ locals, params }: Pick<RequestEvent, 'locals' | 'params'>): Promise<Response> =>
		answering(() => {
			const id = idFrom(params.id, 'trial');
			act(locals.db, id);
			return json({ id }, { status: 202 });
		});
}
