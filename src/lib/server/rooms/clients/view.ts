/** Clients as the list shows them. */
import type { Db } from '../../base/db/connection';
import { clientsWithSites } from './clients';
import { countsOf, type ListedClient } from './queries/view';

export {
	type Client,
	clientNames,
	currencyOfClient,
	findClient,
	findClientByName,
	languageOfClient,
	listClients
} from './queries/clients';
export { goesWithClient } from './queries/changes';
export {
	type Site,
	cdnHostsOf,
	changeSite,
	deleteSite,
	existingSite,
	findSite,
	insertSite,
	otherClientsOf,
	previewAccessOf,
	setRestVisits,
	sitesOf,
	sitesWithHost
} from './queries/sites';
export { deleteState, existingState, saveState, statesOfSite, visitorStates } from './queries/visitorStates';

/** By name, archived ones last. */
export function clientListView(db: Db): ListedClient[] {
	const counts = new Map(countsOf(db).map((row) => [row.id, row]));
	return clientsWithSites(db)
		.map(({ id, name, note, archivedAt, sites }) => ({
			...counts.get(id)!,
			id,
			name,
			note,
			isArchived: archivedAt !== null,
			sites: sites.filter(({ role }) => role === 'own').map(({ host }) => host),
			competitors: sites.filter(({ role }) => role === 'competitor').length
		}))
		.sort((a, b) => Number(a.isArchived) - Number(b.isArchived));
}
