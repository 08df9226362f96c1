import * as v from 'valibot';
import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { PLACES } from '$core/load/conditions/places';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { SiteFields, siteFrom, StateFields, stateFrom, typedSite } from '$lib/server/rooms/clients/form';
import { idFrom } from '$lib/server/http/api';
import { BUTTON, Text } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/base/refusal';
import { hostLookView, requestHostLook } from '$lib/server/rooms/pages/hostLook';
import { proposalsOf } from '$lib/server/rooms/loads/proposals';
import {
	changeSite,
	deleteSite,
	existingSite,
	otherClientsOf,
	deleteState,
	saveState,
	statesOfSite
} from '$lib/server/rooms/clients/view';
import { componentsOfSite, listComponents, putOnSite, takeOffSite } from '$lib/server/rooms/setups/view';

export const load = async ({ locals: { db }, params }) => {
	const { site, ...shown } = pageOr404(() => {
		const client = existingClient(db, idFrom(params.id, 'client'));
		const site = existingSite(db, idFrom(params.site, 'site'));
		if (site.clientId !== client.id) throw new NotPossible(404, `${client.name} has no site ${site.id}.`);
		return {
			where: `Clients › ${client.name} › ${site.name}`,
			client: { id: client.id, name: client.name },
			site,
			alsoOf: otherClientsOf(db, site),
			places: PLACES.map(({ id, name }) => ({ id, name })),
			// What a state's steps type, and its cookies, are secrets: the page shows how many there are.
			states: statesOfSite(db, site.id).map(({ id, state: { name, url, steps, cookies } }) => ({
				id,
				name,
				url,
				steps: steps.length,
				cookies: cookies.length
			})),
			components: componentsOfSite(db, site.id).map(({ component: { id, kind, name, prices }, version, tier }) => ({
				id,
				kind,
				name,
				version,
				tier,
				tiers: prices.map((price) => price.tier)
			})),
			library: listComponents(db).map(({ id, kind, name }) => ({ id, name: `${name} (${kind})` })),
			proposals: proposalsOf(db, site),
			hostLook: hostLookView(db, site.id)
		};
	});
	const { id, name, host, previewAccess } = site;
	return {
		...shown,
		site: { id, name, host, hasAccess: previewAccess !== '' },
		form: await formOf(SiteFields, typedSite(site)),
		stateForm: await formOf(StateFields)
	};
};

const siteOf = ({ params }: RequestEvent) => idFrom(params.site, 'site');
const ON_SITE = v.object({ component: Text, version: Text, tier: Text });

export const actions = {
	change: formAction(SiteFields, (typed, { locals, ...event }: RequestEvent) => {
		const { id, previewAccess } = existingSite(locals.db, siteOf({ locals, ...event }));
		// An empty field keeps the secret that nobody is shown.
		changeSite(locals.db, id, siteFrom(typed, previewAccess));
		return { saved: true };
	}),
	delete: formAction(BUTTON, (_, event: RequestEvent) => {
		deleteSite(event.locals.db, siteOf(event));
		redirect(303, `/clients/${event.params.id}`);
	}),
	lookAtHost: formAction(BUTTON, (_, event: RequestEvent) => requestHostLook(event.locals.db, siteOf(event))),
	component: formAction(ON_SITE, ({ component, version, tier }, event: RequestEvent) =>
		putOnSite(event.locals.db, {
			siteId: siteOf(event),
			componentId: Number(component),
			version: version.trim(),
			tier: tier.trim()
		})
	),
	takeOff: formAction(ON_SITE, ({ component }, event: RequestEvent) =>
		takeOffSite(event.locals.db, siteOf(event), Number(component))
	),
	state: formAction(StateFields, (typed, event: RequestEvent) => {
		const { id } = existingSite(event.locals.db, siteOf(event));
		saveState(event.locals.db, id, stateFrom(typed));
	}),
	deleteState: formAction(v.object({ state: Text }), ({ state }, { locals }: RequestEvent) =>
		deleteState(locals.db, Number(state))
	)
};
