/** Site templates from the registry that nobody here wrote (MIT), served as they are; their scripts from packages. */
import { existsSync, readFileSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { extname, join, normalize } from 'node:path';

const TYPES: Record<string, string> = {
	'.html': 'text/html; charset=utf-8',
	'.css': 'text/css',
	'.js': 'text/javascript',
	'.svg': 'image/svg+xml',
	'.jpg': 'image/jpeg',
	'.png': 'image/png',
	'.ico': 'image/x-icon'
};
const SITES: Record<string, string> = {
	'agency.test': 'node_modules/startbootstrap-agency/dist',
	'shop-home.test': 'node_modules/startbootstrap-shop-homepage/dist'
};
export const TEMPLATE_HOSTS = Object.keys(SITES);

function fileOf(host: string, path: string): string | null {
	const root = SITES[host];
	if (!root) return null;
	// What the templates ask of a host outside is in the packages here.
	const [, name, rest] = /^\/npm\/([a-z-]+)@[\d.]+\/(.*)$/.exec(path) ?? [];
	const file = name
		? join('node_modules', name, normalize(rest!))
		: join(root, normalize(path === '/' ? '/index.html' : path));
	return existsSync(file) ? file : null;
}

/** What was asked for with another method than GET, as "POST /path". */
export const sentTo: string[] = [];

export const templateSites: RequestListener = ({ url = '/', method = 'GET', headers }, response) => {
	if (method !== 'GET') sentTo.push(`${method} ${url}`);
	const file = fileOf((headers.host ?? '').split(':')[0]!, new URL(url, 'http://any.test').pathname);
	if (!file) return void response.writeHead(404).end();
	const body = readFileSync(file);
	const type = TYPES[extname(file)] ?? 'application/octet-stream';
	response.writeHead(200, { 'content-type': type });
	response.end(
		type.startsWith('text/html')
			? body.toString('utf8').replaceAll(/https:\/\/cdn\.jsdelivr\.net\/npm\//g, '/npm/')
			: body
	);
};
