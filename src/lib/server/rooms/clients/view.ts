/** Clients as the list shows them. */
import { sql, type Db } from '../../base/db/connection';
import { clientsWithSites } from './clients';

export interface ListedClient {
	id: number;
	name: string;
	note: string;
	isArchived: boolean;
	sites: string[];
	competitors: number;
	pages: number;
	chosen: number;
	trials: number;
	running: number;
	/** UTC ISO of the newest trial; null without one. */
	lastAt: string | null;
}

type Counts = Pick<ListedClient, 'id' | 'pages' | 'chosen' | 'trials' | 'running' | 'lastAt'>;

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

function countsOf(db: Db): Counts[] {
	return sql<Counts>(
		db,
		`SELECT client.id,
			(SELECT count(*) FROM page JOIN site ON site.id = site_id WHERE client_id = client.id AND role = 'own') AS pages,
			(SELECT count(*) FROM page JOIN site ON site.id = site_id
				WHERE client_id = client.id AND role = 'own' AND is_chosen) AS chosen,
			(SELECT count(*) FROM trial WHERE client_id = client.id) AS trials,
			(SELECT count(*) FROM trial WHERE client_id = client.id AND status IN ('queued', 'running')) AS running,
			(SELECT max(coalesce(started_at, created_at)) FROM trial WHERE client_id = client.id) AS lastAt
			FROM client`
	).all();
}
