/** The newest load of a site. */
import { sql, type Db } from '../../../base/db/connection';

/** The newest load that succeeded of a page of these hosts; null without one. */
export function newestLoad(db: Db, hosts: readonly string[]): number | null {
	const starts = hosts.flatMap((host) => [`http://${host}/`, `https://${host}/`]);
	// "0" is the sign after "/": what begins so lies between the two.
	return sql<{ id: number | null }>(
		db,
		`SELECT max(load.id) AS id FROM json_each(@starts) JOIN load
			ON load.url >= value AND load.url < substr(value, 1, length(value) - 1) || '0' WHERE status = 'ok'`
	).get({ starts: JSON.stringify(starts) })!.id;
}
