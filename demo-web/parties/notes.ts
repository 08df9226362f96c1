/**
 * Stilewatch's notes: a site's page tells its analytics of things that happened. A visit in which nothing but quiet
 * notes came is a bounce, as the trade counts it: a single page, and no interaction.
 */
import type { Answer, Ask } from '../world';

interface Note {
	event: string;
	amount: number;
	quiet: boolean;
}

interface Visit {
	notes: Note[];
}

/** By site and visit; of the last visits alone. */
const visits = new Map<string, Visit>();
const MOST_VISITS = 1000;

const SCRIPT = `(function(){
var visit=Math.random().toString(36).slice(2);
var tell=function(notes){navigator.sendBeacon('https://stilewatch.test/note',JSON.stringify({site:location.hostname,visit:visit,notes:notes}))};
window.stilewatch={note:function(note){tell([note])}};tell([])})();`;

/** @returns null for what is not about notes */
export function answerNotes({ host, path, query, method, body }: Ask): Answer | null {
	if (host !== 'stilewatch.test') return null;
	if (path === '/notes.js') return { type: 'text/javascript', body: SCRIPT, waitMs: 20 };
	if (path === '/note') {
		if (method === 'POST') take(body);
		return { status: method === 'POST' ? 204 : 405, type: 'text/plain', body: '' };
	}
	if (path === '/noted') return { type: 'application/json', body: JSON.stringify(totalsOf(query.get('site') ?? '')) };
	return null;
}

function take(body: string): void {
	const { site, visit, notes } = JSON.parse(body) as { site: string; visit: string; notes: Note[] };
	const key = `${site}/${visit}`;
	if (visits.size > MOST_VISITS) visits.clear();
	const earlier = visits.get(key) ?? { notes: [] };
	earlier.notes.push(...notes);
	visits.set(key, earlier);
}

/** What the site's owner sees. */
function totalsOf(site: string) {
	const own = [...visits].filter(([key]) => key.startsWith(`${site}/`)).map(([, visit]) => visit);
	return {
		visits: own.length,
		bounces: own.filter(({ notes }) => notes.every(({ quiet }) => quiet === true)).length,
		notes: own.flatMap(({ notes }) => notes)
	};
}
