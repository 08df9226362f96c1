import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { formAction, formOf } from '$lib/server/http/form';
import { createAudit } from '$lib/server/rooms/audits/commands';
import { AuditFields, auditFrom } from '$lib/server/rooms/audits/form';
import { clientNames, sitesOf } from '$lib/server/rooms/clients/view';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { pagesToChoose } from '$lib/server/rooms/pages/view';
import { labLoad } from '$lib/server/rooms/trials/timeLeft';

export const load = async ({ locals: { db }, parent, url }) => {
	const { clientId } = await parent();
	const sites = clientId === null ? [] : sitesOf(db, clientId);
	const pages = sites.flatMap((site) =>
		pagesToChoose(db, site.id)
			.filter((page) => page.chosen)
			.map(({ id, url: address, type }) => ({ id, url: address, type, role: site.role, site: site.name }))
	);
	const conditions = conditionNames(db);
	return {
		where: 'Audits › New audit',
		client: clientId === null ? null : (clientNames(db).find(({ id }) => id === clientId)?.name ?? null),
		pages,
		conditions,
		...labLoad(db),
		form: await formOf(AuditFields, {
			clientId: String(clientId ?? ''),
			pages: pages.filter(({ role }) => role === 'own').map(({ id }) => String(id)),
			urls: url.searchParams.get('url') ?? '',
			conditions: conditions.filter(({ id }) => id === 'phone' || id === 'desktop').map(({ id }) => id),
			loads: 3
		})
	};
};

export const actions = {
	default: formAction(AuditFields, (typed, { locals }: RequestEvent) => {
		redirect(303, `/audits/${createAudit(locals.db, auditFrom(typed))}`);
	})
};
