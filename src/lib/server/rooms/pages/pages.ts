/** Pages of sites: what arms, watches and standings point at. */
import { sql, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';

export { existingPage, findPage, listPages, pagesToChoose, type PageRow } from './queries';

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
	const ofClient = clientId === null ? '' : 'WHERE client_id = @clientId';
	return sql<KnownAddress>(
		db,
		`SELECT url, note FROM (
			SELECT url, coalesce(type, site.name) AS note, 0 AS place, -page.id AS age
				FROM site JOIN page ON page.site_id = site.id ${ofClient}
			UNION ALL SELECT url, '', 1, -trial_id FROM trial JOIN arm ON arm.trial_id = trial.id ${ofClient}
		) GROUP BY url ORDER BY min(place), min(age) LIMIT @most`
	).all({ ...(clientId === null ? {} : { clientId }), most });
}
