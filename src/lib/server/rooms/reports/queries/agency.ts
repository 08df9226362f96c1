/** The agency that writes the reports. */
import * as v from 'valibot';
import { Agency } from '$core/report/agency';
import { sql, type Db } from '../../../base/db/connection';

export function agencyOf(db: Db): Agency {
	const row = sql<{ body: string }>(db, 'SELECT body FROM agency WHERE id = 1').get();
	return v.parse(Agency, row ? JSON.parse(row.body) : {});
}

export function saveAgency(db: Db, agency: Agency): void {
	sql(db, 'INSERT INTO agency (id, body) VALUES (1, ?) ON CONFLICT (id) DO UPDATE SET body = excluded.body').run(
		JSON.stringify(agency)
	);
}
