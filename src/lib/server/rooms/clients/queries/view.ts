/** What of each client is counted. */
import { sql, type Db } from '../../../base/db/connection';

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

export function countsOf(db: Db): Counts[] {
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
