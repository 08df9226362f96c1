/** Pages of sites: what arms, watches and standings point at. */
import { sql, type Db } from '../db/connection';
import { NotPossible } from '../http/refusal';

/** @throws NotPossible for a page that is not there */
export function checkPage(db: Db, pageId: number | null, path: string): void {
	if (pageId !== null && sql(db, 'SELECT 1 FROM page WHERE id = ?').get(pageId) === undefined)
		throw new NotPossible(422, `There is no page ${pageId}.`, path);
}

export interface KnownAddress {
	url: string;
	/** What a page is called, or whose it is. */
	note: string;
}

/** Addresses that a client's work knows: pages of its sites first, then what its trials named, newest first. */
export function knownAddresses(db: Db, clientId: number | null, most: number): KnownAddress[] {
	return sql<KnownAddress>(
		db,
		`SELECT url, note FROM (
			SELECT url, coalesce(type, site.name) AS note, 0 AS place, -page.id AS age
				FROM page JOIN site ON site.id = site_id WHERE @clientId IS NULL OR client_id = @clientId
			UNION ALL SELECT url, '', 1, -trial_id FROM arm JOIN trial ON trial.id = trial_id
				WHERE @clientId IS NULL OR client_id = @clientId
		) GROUP BY url ORDER BY min(place), min(age) LIMIT @most`
	).all({ clientId, most });
}
