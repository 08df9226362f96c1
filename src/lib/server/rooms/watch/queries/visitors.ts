/** Who visits the pages of a watch. */
import { createHash } from 'node:crypto';
import type { Step } from '$core/load/journey/steps';
import type { VisitorState } from '$core/load/journey/visitorState';
import type { WatchSettings } from '$core/watch/input';
import { sql, type Db } from '../../../base/db/connection';

/** The visitor of a page; null for an anonymous one. */
export function visitorOfPage(db: Db, { states = [] }: WatchSettings, pageId: number): VisitorState | null {
	if (!states.length) return null;
	const found = sql<{ body: string }>(
		db,
		`SELECT body FROM visitor_state JOIN page ON page.site_id = visitor_state.site_id
			WHERE page.id = ? AND visitor_state.id IN (SELECT value FROM json_each(?))`
	).get(pageId, JSON.stringify(states));
	return found ? (JSON.parse(found.body) as VisitorState) : null;
}

/**
 * What tells the visitor of a load from others, as part of what parts a history: readings as somebody else are not
 * comparable. Empty for an anonymous one.
 */
export function visitorOfLoad(db: Db, loadId: number): string {
	const before = sql<{ before: string | null }>(
		db,
		`SELECT "order" ->> 'before' AS before FROM load JOIN job ON job.id = job_id WHERE load.id = ?`
	).get(loadId)?.before;
	if (!before) return '';
	const { name, url, steps, cookies } = JSON.parse(before) as VisitorState;
	// What is typed and what cookies hold are secrets: even a digest of them stays out of what is exported.
	const shown = { name, url, steps: steps.map(withoutTyped), cookies: cookies.map((cookie) => cookie.name) };
	return `/${createHash('sha256').update(JSON.stringify(shown)).digest('hex').slice(0, 12)}`;
}

const withoutTyped = (step: Step): Step => ('type' in step ? { ...step, type: '' } : step);
