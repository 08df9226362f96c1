/** switchboard.test: a plain page and a JSON API by which changes are made "on the live site". */
import { escapeHtml } from '../builders/render';
import type { StateStore } from '../state/store';
import { BadSwitch, parseChange, SWITCHES, type SiteState } from '../state/switches';
import type { Answer, Ask } from '../world';

const json = (value: unknown, status = 200): Answer => ({
	status,
	type: 'application/json',
	body: JSON.stringify(value)
});
const problem = (status: number, message: string, issues: { path: string; message: string }[] = []) =>
	json({ error: { message, issues } }, status);

export function answerSwitchboard(ask: Ask, store: StateStore): Answer {
	try {
		return route(ask, store);
	} catch (error) {
		if (error instanceof BadSwitch) return problem(422, 'Nothing was changed.', error.issues);
		if (error instanceof SyntaxError) return problem(400, 'The body is not JSON. Nothing was changed.');
		throw error;
	}
}

function route({ path, method, body, query }: Ask, store: StateStore): Answer {
	if (path === '/' && method === 'GET') return { type: 'text/html', body: page(store) };
	if (path === '/' && method === 'POST') return fromForm(body, store);
	if (path === '/switches') return json(SWITCHES);
	if (path === '/sites') return json(store.hosts);
	if (path === '/reset') {
		if (method !== 'POST') return problem(405, 'Send POST to reset.');
		store.reset();
		return json({ version: store.version });
	}
	const match = /^\/sites\/([^/]+)\/(state|publish)$/.exec(path);
	if (!match) return problem(404, `There is no ${path} on the switchboard.`);
	const [, host, what] = match;
	if (!store.has(host!)) return problem(404, `There is no site ${host}. Known: ${store.hosts.join(', ')}.`);
	if (what === 'publish') {
		if (method !== 'POST') return problem(405, 'Send POST to publish.');
		store.publish(host!);
		return json(switchboardState(host!, store));
	}
	if (method === 'GET') return json(switchboardState(host!, store));
	if (method !== 'PUT') return problem(405, 'Send GET or PUT.');
	const change = parseChange(JSON.parse(body || '{}'));
	store.change(host!, change, query.get('staged') === 'yes' ? 'staged' : 'published');
	return json(switchboardState(host!, store));
}

function switchboardState(host: string, store: StateStore) {
	return { host, version: store.version, published: store.published(host), staged: store.stagedChanges(host) };
}

/** The form sends text; the switches say what it means. */
function fromForm(body: string, store: StateStore): Answer {
	const form = new URLSearchParams(body);
	const host = form.get('host') ?? '';
	if (!store.has(host)) return problem(404, `There is no site ${host}.`);
	const change: Record<string, unknown> = {};
	for (const { name, values } of SWITCHES) {
		const text = form.get(name);
		if (text === null) continue;
		change[name] = 'from' in values ? Number(text) : typeof values[0] === 'boolean' ? text === 'true' : text;
	}
	store.change(host, parseChange(change), 'published');
	return { status: 303, type: 'text/plain', body: '', headers: { location: `/#${host}` } };
}

function page(store: StateStore): string {
	const sites = store.hosts.map((host) => {
		const state = store.published(host);
		const rows = SWITCHES.map(
			(lever) => `<p><label>${escapeHtml(lever.words)}<br>${field(lever, state)}</label></p>`
		).join('');
		return `<details id="${host}"><summary>${host}</summary><form method="post"><input type="hidden" name="host" value="${host}">${rows}<button>Change ${host}</button></form></details>`;
	});
	return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>Switchboard</title><link rel="icon" href="data:,">
<style>body{font:16px/1.5 "Liberation Sans",Arial,sans-serif;max-width:760px;margin:24px auto;padding:0 16px}summary{font-weight:600;padding:6px 0}select,input,button{font:inherit;padding:4px 8px}form{border-left:3px solid #888;padding-left:16px}</style></head>
<body><h1>Switchboard of the simulated web</h1><p>A change here is a change on the live site. State version ${store.version}.</p>${sites.join('\n')}
<form method="post" action="/reset"><button>Reset everything</button></form></body></html>`;
}

function field({ name, values }: (typeof SWITCHES)[number], state: SiteState): string {
	const now = state[name];
	if ('from' in values)
		return `<input name="${name}" type="number" min="${values.from}" max="${values.to}" value="${now}">`;
	const words = (value: string | boolean) => (value === true ? 'on' : value === false ? 'off' : value);
	return `<select name="${name}">${values.map((value) => `<option value="${value}"${value === now ? ' selected' : ''}>${words(value)}</option>`).join('')}</select>`;
}
