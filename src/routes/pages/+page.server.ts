import type { RequestEvent } from './$types';
import { originOf } from '$core/clients/site';
import { clientsWithSites } from '$lib/server/rooms/clients/clients';
import { parsed } from '$lib/server/base/parse';
import { BUTTON, PAGES } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { acceptProposals, changePages, deletePages, pastePages } from '$lib/server/rooms/pages/commands';
import { GatherOrder, requestGathering } from '$lib/server/rooms/pages/gathering';
import {
	AcceptFields,
	ChooseFields,
	GatherFields,
	PasteFields,
	SettlingFields,
	TypeFields
} from '$lib/server/rooms/pages/form';
import { requestSettling, SettlingInput, stopSettling } from '$lib/server/rooms/pages/settling';
import { existingSite } from '$lib/server/rooms/clients/view';
import { pagesView, chooseOnly } from '$lib/server/rooms/pages/view';

const WHICH = ['', 'chosen', 'others', 'quiet'] as const;

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const param = (name: string) => url.searchParams.get(name) ?? '';
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
	const chosen = sites.find(({ id }) => id === Number(param('site'))) ?? ofClient[0] ?? null;
	const filter = {
		words: param('q'),
		type: param('type'),
		which: WHICH.find((candidate) => candidate === param('which')) ?? ''
	};
	return {
		where: 'Pages',
		sites: chosen && !ofClient.includes(chosen) ? [...ofClient, chosen] : ofClient,
		site: chosen,
		currency: clients.find(({ id }) => id === chosen?.clientId)?.currency ?? 'EUR',
		filter,
		pasteForm: await formOf(PasteFields),
		gatherForm: await formOf(GatherFields, {
			what: 'sitemap',
			url: chosen ? `${originOf(chosen)}/sitemap.xml` : ''
		}),
		view: chosen ? pagesView(locals.db, existingSite(locals.db, chosen.id), filter, Number(param('page'))) : null
	};
};

const idsOf = ({ page }: { page: string[] }) => page.map(Number).filter(Number.isSafeInteger);
const siteIdOf = ({ locals, url }: Pick<RequestEvent, 'locals' | 'url'>) =>
	existingSite(locals.db, Number(url.searchParams.get('site'))).id;

export const actions = {
	paste: formAction(PasteFields, ({ addresses }, event: RequestEvent) => {
		if (!addresses.trim()) throw new NotPossible(422, 'Write or paste addresses, one a line.', 'addresses');
		return { pasted: pastePages(event.locals.db, siteIdOf(event), addresses) };
	}),
	gather: formAction(GatherFields, (typed, event: RequestEvent) => {
		requestGathering(event.locals.db, siteIdOf(event), parsed(GatherOrder, typed));
	}),
	settle: formAction(SettlingFields, ({ minutes }, event: RequestEvent) => {
		const within = minutes === '' ? {} : { withinMinutes: Number(minutes) };
		requestSettling(event.locals.db, siteIdOf(event), parsed(SettlingInput, within));
	}),
	stopSettling: formAction(BUTTON, (_, event: RequestEvent) => stopSettling(event.locals.db, siteIdOf(event))),
	choose: formAction(ChooseFields, (typed, { locals }: RequestEvent) => {
		changePages(locals.db, idsOf(typed), { isChosen: typed.chosen === 'yes' });
	}),
	propose: formAction(PAGES, (typed, event: RequestEvent) =>
		chooseOnly(event.locals.db, siteIdOf(event), idsOf(typed))
	),
	type: formAction(TypeFields, (typed, { locals }: RequestEvent) => {
		const ids = idsOf(typed);
		if (!ids.length) throw new NotPossible(422, 'Mark the pages first.', 'page');
		changePages(locals.db, ids, { type: typed.type });
	}),
	accept: formAction(AcceptFields, ({ proposal, name }, event: RequestEvent) =>
		acceptProposals(event.locals.db, siteIdOf(event), proposal || null, name.trim() || null)
	),
	delete: formAction(PAGES, (typed, { locals }: RequestEvent) => void deletePages(locals.db, idsOf(typed)))
};
