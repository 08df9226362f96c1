/** Endpoints that do one thing to a trial. */
import { json, type RequestEvent } from '@sveltejs/kit';
import type { Db } from '../db/connection';
import { getDb } from '../context';
import { answering, idFrom } from './api';

export function trialAction(act: (db: Db, id: number) => void) {
	return ({ params }: Pick<RequestEvent, 'params'>): Promise<Response> =>
		answering(() => {
			const id = idFrom(params.id, 'trial');
			act(getDb(), id);
			return json({ id }, { status: 202 });
		});
}
