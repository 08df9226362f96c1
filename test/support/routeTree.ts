/** All endpoints and forms of the app, read from the folders of its routes: a list that nobody types. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const ROUTES = 'src/routes';
const METHODS = /export const (GET|POST|PUT|PATCH|DELETE)\b/g;

export interface RouteTarget {
	/** `/api/trials/[id]`, as the folders are named. */
	route: string;
	method: string;
	/** Of a form; null for an endpoint. */
	action: string | null;
	/** Names that its source writes: some of them are fields of its body. */
	names: string[];
}

/** Endpoints with their methods, and the actions of each page. */
export function routeTargets(folder = ROUTES): RouteTarget[] {
	return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
		const path = join(folder, entry.name);
		if (entry.isDirectory()) return routeTargets(path);
		if (entry.name === '+server.ts') return endpointsOf(folder, readFileSync(path, 'utf8'));
		return entry.name === '+page.server.ts' ? actionsOf(folder, readFileSync(path, 'utf8')) : [];
	});
}

const routeOf = (folder: string) => folder.slice(ROUTES.length) || '/';

function endpointsOf(folder: string, source: string): RouteTarget[] {
	const names = namesIn(source);
	return [...source.matchAll(METHODS)].map(([, method]) => ({
		route: routeOf(folder),
		method: method!,
		action: null,
		names
	}));
}

function actionsOf(folder: string, source: string): RouteTarget[] {
	const at = source.indexOf('export const actions');
	if (at < 0) return [];
	const names = namesIn(source);
	const [object] = source.slice(at).split('\n};');
	// Each key of the object stands at one tab.
	const keys = [...object!.matchAll(/^\t(?:async )?(\w+)(?=[:(,]|$)/gm)].map(([, key]) => key!);
	return [...new Set(keys)].map((action) => ({ route: routeOf(folder), method: 'POST', action, names }));
}

/** Words in quotes and after dots. */
function namesIn(source: string): string[] {
	return [...new Set([...source.matchAll(/['".](\w{2,30})\b/g)].map(([, name]) => name!))];
}
