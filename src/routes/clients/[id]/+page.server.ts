import * as v from 'valibot';
import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { SITE_ROLES } from '$core/clients/site';
import { archiveClient, deleteClient } from '$lib/server/rooms/clients/commands';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { SiteFields, siteFrom } from '$lib/server/rooms/clients/form';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import type { Db } from '$lib/server/base/db/connection';
import { fieldRows } from '$lib/server/rooms/field/view';
import { idFrom } from '$lib/server/http/api';
import { BUTTON, Text } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { pairsOf } from '$lib/server/rooms/pages/pairs';
import { sampleView } from '$lib/server/rooms/pages/view';
import { setupsView } from '$lib/server/rooms/setups/view';
import { registerSummary } from '$lib/server/rooms/loads/register';
import { trialListView } from '$lib/server/rooms/trials/listView';
import { goesWithClient, insertSite, otherClientsOf, sitesOf, type Site } from '$lib/server/rooms/clients/view';

const SHOWN_TRIALS = 6;

export const load = async ({ locals, params }) => ({
	...pageOr404(() => {
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
	}),
	form: await formOf(SiteFields)
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
	archive: formAction(v.object({ archived: Text }), ({ archived }, { locals, params }: RequestEvent) => {
		archiveClient(locals.db, idFrom(params.id, 'client'), archived === 'yes');
	}),
	delete: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		deleteClient(locals.db, idFrom(params.id, 'client'));
		redirect(303, '/clients');
	}),
	site: formAction(SiteFields, (typed, { locals, params }: RequestEvent) => {
		insertSite(locals.db, idFrom(params.id, 'client'), siteFrom(typed));
	})
};
