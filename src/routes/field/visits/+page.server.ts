import * as v from 'valibot';
import type { RequestEvent } from './$types';
import type { Db } from '$lib/server/base/db/connection';
import { idFrom } from '$lib/server/http/api';
import { Text } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { SettingsFields, settingsFrom, typedSettings } from '$lib/server/rooms/visits/settingsForm';
import { beginVisits, changeVisits } from '$lib/server/rooms/visits/commands';
import { existingSite, sitesOf, clientNames } from '$lib/server/rooms/clients/view';
import { checkPage, liveView, sourceOfSite } from '$lib/server/rooms/visits/view';

/** Own sites of all clients: those whose pages the agency can put a script on. */
function ownSites(db: Db) {
	return clientNames(db).flatMap(({ id, name }) =>
		sitesOf(db, id)
			.filter(({ role }) => role === 'own')
			.map((site) => ({ id: site.id, host: site.host, client: name }))
	);
}

export const load = async ({ locals, url, parent }) => {
	const { clientId } = await parent();
	const shown = pageOr404(() => {
		const sites = ownSites(locals.db);
		const ofClient =
			clientId === null ? sites : sites.filter(({ id }) => existingSite(locals.db, id).clientId === clientId);
		const withScript = ofClient.find(({ id }) => sourceOfSite(locals.db, id) !== null);
		const siteParam = url.searchParams.get('site');
		const siteId =
			siteParam === null ? ((withScript ?? ofClient[0] ?? sites[0])?.id ?? null) : idFrom(siteParam, 'site');
		const site = siteId === null ? null : existingSite(locals.db, siteId);
		const source = siteId === null ? null : sourceOfSite(locals.db, siteId);
		const path = url.searchParams.get('check');
		return {
			where: site ? `Field › Live visits of ${site.host}` : 'Field › Live visits',
			sites,
			site,
			source,
			origin: url.origin,
			live: siteId === null || !source ? null : liveView(locals.visits().db, source),
			check: source && path ? checkPage(locals.visits().db, source.siteId, path, source.settings) : null
		};
	});
	const { site, source } = shown;
	return {
		...shown,
		form: await formOf(SettingsFields, source ? typedSettings(site!.id, source.settings) : undefined)
	};
};

export const actions = {
	begin: formAction(v.object({ site: Text }), ({ site }, { locals }: RequestEvent) => {
		beginVisits(locals.db, locals.visits().db, idFrom(site, 'site'));
	}),
	save: formAction(SettingsFields, (typed, { locals }: RequestEvent) => {
		changeVisits(locals.db, locals.visits().db, idFrom(typed.site, 'site'), settingsFrom(typed));
		locals.visits().door.forget();
		return { saved: true };
	})
};
