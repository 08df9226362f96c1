import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { BUTTON } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { idFrom } from '$lib/server/http/api';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { deleteAudit, repeatAudit, stopAudit } from '$lib/server/rooms/audits/commands';
import { auditView } from '$lib/server/rooms/audits/view';

export const load = ({ locals: { db }, params }) =>
	pageOr404(() => {
		const audit = auditView(db, idFrom(params.id, 'audit'));
		return { where: `Audits › ${audit.name}`, audit };
	});

const idOf = ({ params }: RequestEvent) => idFrom(params.id, 'audit');

export const actions = {
	stop: formAction(BUTTON, (_, event: RequestEvent) => stopAudit(event.locals.db, idOf(event))),
	again: formAction(BUTTON, (_, event: RequestEvent) =>
		redirect(303, `/audits/${repeatAudit(event.locals.db, idOf(event))}`)
	),
	delete: formAction(BUTTON, (_, event: RequestEvent) => {
		deleteAudit(event.locals.db, idOf(event));
		redirect(303, '/audits');
	})
};
