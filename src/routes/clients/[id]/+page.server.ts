import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { SiteInput, SITE_ROLES } from '$core/clients/site';
import { archiveClient, deleteClient, goesWithClient } from '$lib/server/rooms/clients/commands';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { siteFrom, typedSite } from '$lib/server/rooms/clients/form';
import { insertSite, otherClientsOf, sitesOf, type Site } from '$lib/server/rooms/clients/sites';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import type { Db } from '$lib/server/base/db/connection';
import { fieldRows } from '$lib/server/rooms/field/view';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { pairsOf } from '$lib/server/rooms/pages/pairs';
import { sampleView } from '$lib/server/rooms/pages/view';
import { setupsView } from '$lib/server/rooms/setups/view';
import { registerSummary } from '$lib/server/rooms/loads/register';
import { trialListView } from '$lib/server/rooms/trials/listView';

const SHOWN_TRIALS = 6;

export const load = ({ locals, params }) =>
	pageOr404(() => {
		const db = locals.db;
		const client = existingClient(db, idFrom(params.id, 'client'));
		const sites = sitesOf(db, client.id);
		const { trials, total } = trialListView(db, { clientId: client.id }, 1);
		return {
			where: `Clients › ${client.name}`,
			client,
			sites: sites.map((site) => siteView(db, site)),
			pairs: pairsOf(db, sites),
			field: ownAssessments(db, client.id, sites),
			setups: setupsView(db, client, sites),
			thirdParties: registerSummary(db, client.id),
			trials: trials.slice(0, SHOWN_TRIALS),
			allTrials: total,
			goesAlong: goesWithClient(db, client.id),
			roles: SITE_ROLES,
			conditions: conditionNames(db)
		};
	});

/** Of the chosen pages of own sites, on each device. */
function ownAssessments(db: Db, clientId: number, sites: readonly Site[]) {
	const own = new Set(sites.filter(({ role }) => role === 'own').map(({ id }) => id));
	return fieldRows(db, clientId)
		.filter(({ siteId }) => own.has(siteId))
		.map(({ device, assessment }) => ({ device, assessment }));
}

function siteView(db: Db, site: Site) {
	const { id, name, host, role } = site;
	return { id, name, host, role, sample: sampleView(db, site), alsoOf: otherClientsOf(db, site) };
}

export const actions = {
	archive: formAction((form, { locals, params }: RequestEvent) => {
		archiveClient(locals.db, idFrom(params.id, 'client'), form.get('archived') === 'yes');
	}),
	delete: formAction((_form, { locals, params }: RequestEvent) => {
		deleteClient(locals.db, idFrom(params.id, 'client'));
		redirect(303, '/clients');
	}),
	site: formAction((form, { locals, params }: RequestEvent) => {
		const typed = typedSite(form);
		const read = v.safeParse(SiteInput, siteFrom(typed));
		if (!read.success) return fail(422, { typed, issues: issuesOf(read.issues) });
		const refused = withTyped(typed, () => void insertSite(locals.db, idFrom(params.id, 'client'), read.output));
		if (refused) return refused;
		return { typed: null, issues: [] };
	})
};
