/** Serves the control page that ships with Zafra, beside the lab: as near as can be, and touched by nobody. */
import { readdirSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { extname, join } from 'node:path';
import type { HostRule } from '$core/load/requests/hostMap';
import { CONTROL_HOST } from '$core/watch/control';

const TYPES: Record<string, string> = {
	'.html': 'text/html; charset=utf-8',
	'.css': 'text/css',
	'.js': 'text/javascript',
	'.svg': 'image/svg+xml'
};

/** @param folder of the page's files @returns the rule by which the lab finds it, and how to end it */
export async function serveControlPage(folder: string): Promise<{ rule: HostRule; close(): void }> {
	const files = new Map(readdirSync(folder).map((name) => [`/control/${name}`, readFileSync(join(folder, name))]));
	const server = createServer((request, response) => {
		const body = files.get(request.url ?? '');
		if (!body) return void response.writeHead(404).end();
		response.writeHead(200, {
			'content-type': TYPES[extname(request.url!)] ?? 'application/octet-stream',
			'content-length': body.length
		});
		response.end(body);
	});
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	server.unref();
	const { port } = server.address() as AddressInfo;
	return {
		rule: { pattern: CONTROL_HOST, address: '127.0.0.1', port, tlsPort: null },
		close() {
			server.closeAllConnections();
			server.close();
		}
	};
}
