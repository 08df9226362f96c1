import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { FIELD_METRICS } from '$core/field/histogram';
import { VisitSettings } from '$core/field/visitSettings';
import { existingSite, sitesOf } from '$lib/server/rooms/clients/sites';
import { clientNames } from '$lib/server/rooms/clients/clients';
import type { Db } from '$lib/server/base/db/connection';
import { idFrom } from '$lib/server/http/api';
import { formAction, textOf, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/base/refusal';
import { checkPage, liveView } from '$lib/server/rooms/visits/live';
import { parseTimings, timingLines } from '$lib/server/rooms/visits/settingsForm';
import { beginVisits, changeVisits } from '$lib/server/rooms/visits/commands';
import { sourceOfSite } from '$lib/server/rooms/visits/sources';

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
	return pageOr404(() => {
		const sites = ownSites(locals.db);
		const ofClient =
			clientId === null ? sites : sites.filter(({ id }) => existingSite(locals.db, id).clientId === clientId);
		const withScript = ofClient.find(({ id }) => sourceOfSite(locals.db, id) !== null);
		const asked = url.searchParams.get('site');
		const siteId = asked === null ? ((withScript ?? ofClient[0] ?? sites[0])?.id ?? null) : idFrom(asked, 'site');
		const site = siteId === null ? null : existingSite(locals.db, siteId);
		const source = siteId === null ? null : sourceOfSite(locals.db, siteId);
		const path = url.searchParams.get('check');
		return {
			where: site ? `Field › Live visits of ${site.host}` : 'Field › Live visits',
			sites,
			site,
			source,
			timings: source ? timingLines(source.settings) : '',
			origin: url.origin,
			live: siteId === null || !source ? null : liveView(locals.visits().db, source),
			check: source && path ? checkPage(locals.visits().db, source.siteId, path, source.settings) : null
		};
	});
};

export const actions = {
	begin: formAction((form: FormData, { locals }: RequestEvent) => {
		beginVisits(locals.db, locals.visits().db, idFrom(textOf(form, 'site'), 'site'));
	}),
	save: formAction((form: FormData, { locals }) => {
		const names = [
			'sampling',
			'timings',
			'goals',
			'keepDays',
			'timeZone',
			'call',
			'nameField',
			'valueField',
			'quietField'
		] as const;
		const events = FIELD_METRICS.map((id) => [id, textOf(form, `event-${id}`)] as const);
		const typed = {
			...(Object.fromEntries(names.map((name) => [name, textOf(form, name)])) as Record<
				(typeof names)[number],
				string
			>),
			events: Object.fromEntries(events)
		};
		return withTyped(typed, () => {
			const { call, nameField, valueField, quietField } = typed;
			const named = events.filter(([, event]) => event !== '');
			const wish = {
				sampling: Number(typed.sampling.replace(',', '.')) / 100,
				timings: parseTimings(typed.timings),
				timeZone: typed.timeZone.trim() || 'UTC',
				goals: typed.goals.split(/[\s,]+/).filter(Boolean),
				keepDays: typed.keepDays.trim() === '' ? null : Number(typed.keepDays),
				handOver:
					call.trim() === '' ? null : { call, nameField, valueField, quietField, events: Object.fromEntries(named) }
			};
			const read = v.safeParse(VisitSettings, wish);
			if (!read.success)
				throw new NotPossible(
					422,
					read.issues[0].message,
					(v.getDotPath(read.issues[0]) ?? '').replace(/^handOver\./, '')
				);
			changeVisits(locals.db, locals.visits().db, idFrom(textOf(form, 'site'), 'site'), read.output);
			locals.visits().door.forget();
			return { saved: true };
		});
	})
};
