/**
 * Screens as the server renders them over the demonstration's data: `load` of a page, then the page, without a browser.
 * The data folder is made once for the process that runs the tests, and goes with it.
 */
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { weeksUntil } from '../../../demo-web/calendar';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Component } from 'svelte';
import type { Db } from '../../../src/lib/server/base/db/connection';
import type { Booted } from '../../../src/lib/server/boot';
import { show, type Shown } from './show';

const ROUTES = 'src/routes';
interface Route {
	folder: string;
	pattern: RegExp;
	names: string[];
	hasServer: boolean;
	/** Folders below the first whose frame loads something, outermost first. */
	frames: string[];
	/** What the page loads in a browser too. */
	hasShared: boolean;
}

function* routesIn(folder: string, parts: string[] = [], outer: string[] = []): Generator<Route> {
	const entries = readdirSync(folder, { withFileTypes: true });
	const files = new Set(entries.map(({ name }) => name));
	const frames = parts.length && files.has('+layout.server.ts') ? [...outer, folder] : outer;
	if (files.has('+page.svelte')) {
		const names = parts.flatMap((part) => part.match(/^\[(\w+)\]$/)?.[1] ?? []);
		const pattern = new RegExp(`^/${parts.map((part) => (part.startsWith('[') ? '([^/]+)' : part)).join('/')}$`);
		const [hasServer, hasShared] = [files.has('+page.server.ts'), files.has('+page.ts')];
		yield { folder, pattern, names, frames, hasServer, hasShared };
	}
	// Reports that are shared have a page without our frame and script: they are rendered by their own handler.
	for (const entry of entries)
		if (entry.isDirectory() && entry.name !== 'api')
			yield* routesIn(join(folder, entry.name), [...parts, entry.name], frames);
}

// Those without a parameter first: `/trials/new` is no trial called "new".
const ROUTE_LIST = [...routesIn(ROUTES)].sort((a, b) => a.names.length - b.names.length);

export const routePatterns = (): string[] => ROUTE_LIST.map(({ folder }) => folder.slice(ROUTES.length) || '/');

let booted: Booted | null = null;

/** What requests find in a process that serves the demonstration. */
async function demoLocals(): Promise<Booted> {
	if (booted) return booted;
	const folder = mkdtempSync(join(tmpdir(), 'zafra-screens-'));
	process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
	const { boot } = await import('../../../src/lib/server/boot');
	// It reads where its data is when it is first asked; other tests of this process start apps of their own.
	const before = process.env;
	process.env = { ...before, ZAFRA_DATA: folder, ZAFRA_DEMO: 'on', ZAFRA_DEMO_WEEKS: String(weeksUntil(Date.now())) };
	try {
		return (booted = boot());
	} finally {
		process.env = before;
	}
}

/** The demonstration's database. */
export const demoDb = async (): Promise<Db> => (await demoLocals()).db;

interface Event {
	params: Record<string, string>;
	url: URL;
	[other: string]: unknown;
}
type Load = (event: Event) => unknown;
const importAt = (path: string) => import(pathToFileURL(path).href) as Promise<Record<string, unknown>>;

export interface ScreenRequest {
	/** What an action gave back. */
	form?: unknown;
	/** Number of the chosen client. */
	client?: number;
}

/** What a page's `load` gives, with that of the frame of all pages. */
export async function dataOf(path: string, { client }: ScreenRequest = {}) {
	const locals = { ...(await demoLocals()) };
	const url = new URL(path, 'http://zafra.test');
	const route = ROUTE_LIST.find(({ pattern }) => pattern.test(url.pathname));
	if (!route) throw new Error(`No page is at ${path}.`);
	const values = route.pattern.exec(url.pathname)!.slice(1);
	const params = Object.fromEntries(route.names.map((name, i) => [name, values[i]!]));
	const cookies = { get: () => (client === undefined ? undefined : String(client)), set: () => undefined };
	const shared = { params, url, cookies, depends: () => undefined, setHeaders: () => undefined, locals };
	const frame: object = {};
	for (const folder of [ROUTES, ...route.frames]) {
		const layout = (await importAt(join(folder, '+layout.server.ts'))) as { load: Load };
		Object.assign(frame, await layout.load(shared));
	}
	const request = new Request(url);
	const event = { ...shared, request, parent: () => Promise.resolve(frame), getClientAddress: () => '127.0.0.1' };
	const server = route.hasServer ? ((await importAt(join(route.folder, '+page.server.ts'))) as { load?: Load }) : null;
	const own = (await server?.load?.(event)) as object | undefined;
	const common = route.hasShared ? ((await importAt(join(route.folder, '+page.ts'))) as { load: Load }) : null;
	const given = common ? ((await common.load({ ...event, data: own })) as object) : own;
	return { route, url, params, data: { ...frame, ...given } as Record<string, unknown> };
}

/** A page as a reader gets it before any script runs. */
export async function screen(path: string, request: ScreenRequest = {}): Promise<Shown> {
	const { route, url, params, data } = await dataOf(path, request);
	const form = request.form ?? null;
	const kit = (await import('./kit')) as { page: object };
	Object.assign(kit.page, { url, params, data, form });
	const { default: component } = await importAt(join(route.folder, '+page.svelte'));
	return show(component as Component<{ data: unknown; form: unknown }>, { data, form });
}

/** What a browser would send of the form on a screen, with some fields filled in otherwise. */
export function filled(shown: Shown, changes: Record<string, string | readonly string[]>): FormData {
	const form = new FormData();
	const isOn = (field: Shown) => field.attribute('checked') !== null;
	for (const field of shown.all('input[name],select[name],textarea[name]')) {
		const name = field.attribute('name')!;
		const type = field.attribute('type');
		if (name in changes || ((type === 'checkbox' || type === 'radio') && !isOn(field))) continue;
		form.append(name, valueOf(field));
	}
	for (const [name, values] of Object.entries(changes)) for (const value of [values].flat()) form.append(name, value);
	return form;
}

function valueOf(field: Shown): string {
	if (field.name === 'textarea') return field.rawText;
	if (field.name !== 'select') return field.attribute('value') ?? (field.attribute('type') === 'checkbox' ? 'on' : '');
	const options = field.all('option');
	const chosen = options.find((option) => option.attribute('selected') !== null) ?? options[0];
	return chosen?.attribute('value') ?? chosen?.text ?? '';
}

export type Pressed = { sentTo: string } | { status: number; form: Record<string, unknown> };

/** Send a form to an action of a page, as its button does. @returns where it leads, or what came back */
export async function press(path: string, form: FormData, action = 'default'): Promise<Pressed> {
	const { route, url, params } = await dataOf(path);
	const { actions } = (await importAt(join(route.folder, '+page.server.ts'))) as unknown as {
		actions: Record<string, (event: unknown) => Promise<unknown>>;
	};
	const request = new Request(url, { method: 'POST', body: form });
	const cookies = { get: () => undefined, set: () => undefined, delete: () => undefined };
	try {
		const answer = await actions[action]!({
			request,
			url,
			params,
			cookies,
			locals: { ...(await demoLocals()) },
			getClientAddress: () => '::1'
		});
		const failed = answer as { status?: number; data?: Record<string, unknown> } | undefined;
		if (failed?.data) return { status: failed.status!, form: failed.data };
		return { status: 200, form: (answer ?? {}) as Record<string, unknown> };
	} catch (thrown) {
		const { location } = thrown as { location?: string };
		if (location === undefined) throw thrown;
		return { sentTo: location };
	}
}
