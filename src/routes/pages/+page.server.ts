import { fail } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { clientsWithSites } from '$lib/server/rooms/clients/clients';
import { existingSite } from '$lib/server/rooms/clients/sites';
import { issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { acceptProposals, changePages, chooseOnly, deletePages, pastePages } from '$lib/server/rooms/pages/commands';
import { GatherOrder, requestGathering } from '$lib/server/rooms/pages/gathering';
import { pagesView } from '$lib/server/rooms/pages/view';

const WHICH = ['', 'chosen', 'others', 'quiet'] as const;

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const asked = (name: string) => url.searchParams.get(name) ?? '';
	const clients = clientsWithSites(locals.db).filter(({ archivedAt }) => archivedAt === null);
	const sites = clients.flatMap(({ id, name, sites: own }) =>
		own.map((site) => ({
			id: site.id,
			name: site.name,
			host: site.host,
			scheme: site.scheme,
			role: site.role,
			clientId: id,
			client: name
		}))
	);
	const ofClient = sites.filter((site) => clientId === null || site.clientId === clientId);
	const chosen = sites.find(({ id }) => id === Number(asked('site'))) ?? ofClient[0] ?? null;
	const filter = {
		words: asked('q'),
		type: asked('type'),
		which: WHICH.find((known) => known === asked('which')) ?? ''
	};
	return {
		where: 'Pages',
		sites: chosen && !ofClient.includes(chosen) ? [...ofClient, chosen] : ofClient,
		site: chosen,
		currency: clients.find(({ id }) => id === chosen?.clientId)?.currency ?? 'EUR',
		filter,
		view: chosen ? pagesView(locals.db, existingSite(locals.db, chosen.id), filter, Number(asked('page'))) : null
	};
};

const idsOf = (form: FormData) => form.getAll('page').map(Number).filter(Number.isSafeInteger);
const siteIdOf = ({ locals, url }: RequestEvent) => existingSite(locals.db, Number(url.searchParams.get('site'))).id;

export const actions = {
	paste: formAction((form, event: RequestEvent) => {
		const text = textOf(form, 'addresses');
		if (!text.trim())
			return fail(422, {
				typed: text,
				issues: [{ path: 'addresses', message: 'Write or paste addresses, one a line.' }]
			});
		return { pasted: pastePages(event.locals.db, siteIdOf(event), text), issues: [] };
	}),
	gather: formAction((form, event: RequestEvent) => {
		const read = v.safeParse(GatherOrder, { what: textOf(form, 'what'), url: textOf(form, 'url') });
		if (!read.success) return fail(422, { gather: textOf(form, 'url'), issues: issuesOf(read.issues) });
		requestGathering(event.locals.db, siteIdOf(event), read.output);
		return { issues: [] };
	}),
	choose: formAction(
		(form, { locals }) => void changePages(locals.db, idsOf(form), { isChosen: form.get('chosen') === 'yes' })
	),
	propose: formAction((form, event: RequestEvent) => chooseOnly(event.locals.db, siteIdOf(event), idsOf(form))),
	type: formAction((form, { locals }) => {
		const ids = idsOf(form);
		if (!ids.length) throw new NotPossible(422, 'Mark the pages first.', 'pages');
		changePages(locals.db, ids, { type: textOf(form, 'type') });
	}),
	accept: formAction((form, event: RequestEvent) => {
		const named = textOf(form, 'name').trim();
		acceptProposals(event.locals.db, siteIdOf(event), textOf(form, 'proposal') || null, named || null);
	}),
	delete: formAction((form, { locals }) => void deletePages(locals.db, idsOf(form)))
};
