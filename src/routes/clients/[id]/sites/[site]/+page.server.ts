import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { PLACES } from '$core/load/conditions/places';
import { parseSteps } from '$core/load/journey/steps';
import { parseCookies, VisitorState } from '$core/load/journey/visitorState';
import { SiteInput } from '$core/clients/site';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { siteFrom, typedSite } from '$lib/server/rooms/clients/form';
import { changeSite, deleteSite, existingSite, otherClientsOf } from '$lib/server/rooms/clients/sites';
import { deleteState, saveState, statesOfSite } from '$lib/server/rooms/clients/visitorStates';
import type { Db } from '$lib/server/base/db/connection';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, textOf, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { NotPossible } from '$lib/server/base/refusal';
import { componentsOfSite, listComponents, putOnSite, takeOffSite } from '$lib/server/rooms/setups/components';
import { proposalsOf } from '$lib/server/rooms/loads/proposals';

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const db = locals.db;
		const client = existingClient(db, idFrom(params.id, 'client'));
		const site = existingSite(db, idFrom(params.site, 'site'));
		if (site.clientId !== client.id) throw new NotPossible(404, `${client.name} has no site ${site.id}.`);
		const { previewAccess, hosts, cdnHosts, ...rest } = site;
		return {
			where: `Clients › ${client.name} › ${site.name}`,
			client: { id: client.id, name: client.name },
			site: {
				...rest,
				hosts: hosts.join(', '),
				cdnHosts: cdnHosts.join(', '),
				hasAccess: previewAccess !== ''
			},
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
			proposals: proposalsOf(db, site)
		};
	});

const siteOf = ({ params }: RequestEvent) => idFrom(params.site, 'site');

export const actions = {
	change: formAction((form, event: RequestEvent) => {
		const typed = typedSite(form);
		const old = existingSite(event.locals.db, siteOf(event));
		// An empty field keeps the secret that nobody is shown.
		const previewAccess = form.has('forgetAccess') ? '' : typed.previewAccess || old.previewAccess;
		const read = v.safeParse(SiteInput, { ...siteFrom(typed), previewAccess });
		if (!read.success) return fail(422, { typed, issues: issuesOf(read.issues) });
		const refused = withTyped(typed, () => changeSite(event.locals.db, old.id, read.output));
		return refused ?? { saved: true, issues: [] };
	}),
	delete: formAction((_form, event: RequestEvent) => {
		deleteSite(event.locals.db, siteOf(event));
		redirect(303, `/clients/${event.params.id}`);
	}),
	component: formAction((form, event: RequestEvent) => {
		const id = Number(textOf(form, 'component'));
		putOnSite(event.locals.db, siteOf(event), id, textOf(form, 'version').trim(), textOf(form, 'tier').trim());
	}),
	takeOff: formAction((form, event: RequestEvent) =>
		takeOffSite(event.locals.db, siteOf(event), Number(textOf(form, 'component')))
	),
	state: formAction((form, event: RequestEvent) => saveTypedState(event.locals.db, form, siteOf(event))),
	deleteState: formAction((form, { locals }) => deleteState(locals.db, Number(textOf(form, 'state'))))
};

function saveTypedState(db: Db, form: FormData, siteId: number) {
	const text = (name: string) => textOf(form, name).trim();
	const state = {
		name: text('stateName'),
		url: text('stateUrl'),
		steps: text('stateSteps'),
		cookies: text('stateCookies')
	};
	try {
		const asked = {
			name: state.name,
			url: state.url || null,
			steps: parseSteps(state.steps),
			cookies: parseCookies(state.cookies)
		};
		const read = v.safeParse(VisitorState, asked);
		if (!read.success) return fail(422, { state, issues: issuesOf(read.issues).map(asStateIssue) });
		saveState(db, existingSite(db, siteId).id, read.output);
	} catch (error) {
		if (error instanceof NotPossible) throw error;
		const { message } = error as Error;
		return fail(422, { state, issues: [{ path: /cookie/.test(message) ? 'stateCookies' : 'stateSteps', message }] });
	}
	return { state: null, issues: [] };
}

/** "steps.2" of the state is the field of its steps. */
const FIELDS: Record<string, string> = {
	name: 'stateName',
	url: 'stateUrl',
	steps: 'stateSteps',
	cookies: 'stateCookies'
};
const asStateIssue = ({ path, message }: { path: string; message: string }) => ({
	path: FIELDS[path.split('.')[0]!] ?? 'stateSteps',
	message
});
