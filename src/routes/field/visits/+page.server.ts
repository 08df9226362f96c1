import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { FIELD_METRICS } from '$core/field/histogram';
import { VisitSettings } from '$core/field/visitSettings';
import { existingSite, sitesOf } from '$lib/server/clients/sites';
import { clientNames } from '$lib/server/clients/clients';
import { getDb, getVisits } from '$lib/server/context';
import { idFrom } from '$lib/server/http/api';
import { formAction, textOf, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/http/refusal';
import { checkPage, liveView } from '$lib/server/visits/live';
import { parseTimings, timingLines } from '$lib/server/visits/settingsForm';
import { beginVisits, changeVisits } from '$lib/server/visits/commands';
import { sourceOfSite } from '$lib/server/visits/sources';

/** Own sites of all clients: those whose pages the agency can put a script on. */
function ownSites() {
	return clientNames(getDb()).flatMap(({ id, name }) =>
		sitesOf(getDb(), id)
			.filter(({ role }) => role === 'own')
			.map((site) => ({ id: site.id, host: site.host, client: name }))
	);
}

export const load = async ({ url, parent }) => {
	const { clientId } = await parent();
	return pageOr404(() => {
		const sites = ownSites();
		const ofClient =
			clientId === null ? sites : sites.filter(({ id }) => existingSite(getDb(), id).clientId === clientId);
		const withScript = ofClient.find(({ id }) => sourceOfSite(getDb(), id) !== null);
		const asked = url.searchParams.get('site');
		const siteId = asked === null ? ((withScript ?? ofClient[0] ?? sites[0])?.id ?? null) : idFrom(asked, 'site');
		const site = siteId === null ? null : existingSite(getDb(), siteId);
		const source = siteId === null ? null : sourceOfSite(getDb(), siteId);
		const path = url.searchParams.get('check');
		return {
			where: site ? `Field › Live visits of ${site.host}` : 'Field › Live visits',
			sites,
			site,
			source,
			timings: source ? timingLines(source.settings) : '',
			origin: url.origin,
			live: siteId === null || !source ? null : liveView(getVisits().db, source),
			check: source && path ? checkPage(getVisits().db, source.siteId, path, source.settings) : null
		};
	});
};

export const actions = {
	begin: formAction((form: FormData, _event: RequestEvent) => {
		beginVisits(getDb(), getVisits().db, idFrom(textOf(form, 'site'), 'site'));
	}),
	save: formAction((form: FormData) => {
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
			changeVisits(getDb(), getVisits().db, idFrom(textOf(form, 'site'), 'site'), read.output);
			getVisits().door.forget();
			return { saved: true };
		});
	})
};
