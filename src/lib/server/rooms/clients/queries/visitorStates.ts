/** Named visitor states of sites: signed in, basket filled. */
import * as v from 'valibot';
import { VisitorState } from '$core/load/journey/visitorState';
import { sql, type Db } from '../../../base/db/connection';
import { NotPossible } from '../../../base/refusal';

export interface SavedState {
	id: number;
	siteId: number;
	/** Name of the site. */
	site: string;
	state: VisitorState;
}

interface Row {
	id: number;
	site_id: number;
	site: string;
	body: string;
}

const asSaved = ({ id, site_id, site, body }: Row): SavedState => ({
	id,
	siteId: site_id,
	site,
	state: v.parse(VisitorState, JSON.parse(body))
});

const SELECT = `SELECT visitor_state.id, site_id, site.name AS site, body
	FROM visitor_state JOIN site ON site.id = site_id`;

/** Of a client's sites, or of all; by site and name. */
export function visitorStates(db: Db, clientId: number | null): SavedState[] {
	return sql<Row>(
		db,
		`${SELECT} WHERE @clientId IS NULL OR client_id = @clientId ORDER BY site.name, visitor_state.name`
	)
		.all({ clientId })
		.map(asSaved);
}

export function statesOfSite(db: Db, siteId: number): SavedState[] {
	return sql<Row>(db, `${SELECT} WHERE site_id = ? ORDER BY visitor_state.name`).all(siteId).map(asSaved);
}

/** @throws NotPossible for a state that is not there */
export function existingState(db: Db, id: number): SavedState {
	const row = sql<Row>(db, `${SELECT} WHERE visitor_state.id = ?`).get(id);
	if (!row) throw new NotPossible(404, `There is no visitor state ${id}.`);
	return asSaved(row);
}

/** A state of the same name is replaced. @returns its id */
export function saveState(db: Db, siteId: number, state: VisitorState): number {
	const row = sql<{ id: number }>(
		db,
		`INSERT INTO visitor_state (site_id, name, body) VALUES (@siteId, @name, @body)
			ON CONFLICT (site_id, name) DO UPDATE SET body = excluded.body RETURNING id`
	).get({ siteId, name: state.name, body: JSON.stringify(state) });
	return row!.id;
}

/** Trials keep their own copies. */
export function deleteState(db: Db, id: number): void {
	if (sql(db, 'DELETE FROM visitor_state WHERE id = ?').run(id).changes === 0)
		throw new NotPossible(404, `There is no visitor state ${id}.`);
}
