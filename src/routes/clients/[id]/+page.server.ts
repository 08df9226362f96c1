import { fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { SiteInput, SITE_ROLES } from '$core/clients/site';
import { archiveClient, deleteClient, goesWithClient } from '$lib/server/clients/commands';
import { existingClient } from '$lib/server/clients/clients';
import { siteFrom, typedSite } from '$lib/server/clients/form';
import { insertSite, otherClientsOf, sitesOf, type Site } from '$lib/server/clients/sites';
import { conditionNames } from '$lib/server/conditions/saved';
import { getDb } from '$lib/server/context';
import type { Db } from '$lib/server/db/connection';
import { fieldRows } from '$lib/server/field/view';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { pairsOf } from '$lib/server/pages/pairs';
import { sampleView } from '$lib/server/pages/view';
import { setupsView } from '$lib/server/setups/view';
import { registerSummary } from '$lib/server/setups/register';
import { trialListView } from '$lib/server/trials/listView';

const SHOWN_TRIALS = 6;

export const load = ({ params }) =>
	pageOr404(() => {
		const db = getDb();
		const client = existingClient(db, idFrom(params.id, 'client'));
		const sites = sitesOf(db, client.id);
		const { trials, total } = trialListView(db, { clientId: client.id }, 1);
		return {
			where: `Clients › ${client.name}`,
			client,
			sites: sites.map(siteView),
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

function siteView(site: Site) {
	const { id, name, host, role } = site;
	return { id, name, host, role, sample: sampleView(getDb(), site), alsoOf: otherClientsOf(getDb(), site) };
}

export const actions = {
	archive: formAction((form, { params }: RequestEvent) => {
		archiveClient(getDb(), idFrom(params.id, 'client'), form.get('archived') === 'yes');
	}),
	delete: formAction((_form, { params }: RequestEvent) => {
		deleteClient(getDb(), idFrom(params.id, 'client'));
		redirect(303, '/clients');
	}),
	site: formAction((form, { params }: RequestEvent) => {
		const typed = typedSite(form);
		const read = v.safeParse(SiteInput, siteFrom(typed));
		if (!read.success) return fail(422, { typed, issues: issuesOf(read.issues) });
		const refused = withTyped(typed, () => void insertSite(getDb(), idFrom(params.id, 'client'), read.output));
		if (refused) return refused;
		return { typed: null, issues: [] };
	})
};
