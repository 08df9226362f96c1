/** The rewriting server's own thread, so that making a picture anew delays neither a packet nor an event of the lab. */
import { parentPort } from 'node:worker_threads';
import { makeCertificate, type OwnCertificate } from './certificate';
import { RewritingServer, type RewritingLog, type RewritingOptions } from './server';
import { Twin } from './twin';

export interface OpenRewriting extends Omit<RewritingOptions, 'certificate' | 'twin'> {
	/** Folder of the twin; null answers live. */
	twin: string | null;
}
export type RewriteRequest =
	{ id: number; key: true } | { id: number; open: OpenRewriting } | { id: number; close: true };
export interface RewriteReply {
	id: number;
	keyHash?: string;
	ports?: { port: number; tlsPort: number };
	log?: RewritingLog;
	error?: string;
}

const servers = new Map<number, RewritingServer>();
const twins = new Map<string, Twin>();
let certificate: Promise<OwnCertificate> | null = null;

parentPort?.on('message', (request: RewriteRequest) => {
	const reply = (answer: Omit<RewriteReply, 'id'>) => parentPort!.postMessage({ id: request.id, ...answer });
	answer(request).then(reply, (error: Error) => reply({ error: error.message }));
});

async function answer(request: RewriteRequest): Promise<Omit<RewriteReply, 'id'>> {
	certificate ??= makeCertificate();
	if ('key' in request) return { keyHash: (await certificate).keyHash };
	if ('open' in request) {
		const { twin, ...options } = request.open;
		const server = new RewritingServer({
			...options,
			twin: twin === null ? null : twinOf(twin),
			certificate: await certificate
		});
		servers.set(request.id, server);
		return { ports: await server.listen() };
	}
	const server = servers.get(request.id);
	servers.delete(request.id);
	server?.close();
	return server ? { log: server.log } : {};
}

function twinOf(folder: string): Twin {
	const known = twins.get(folder);
	if (known) return known;
	const twin = new Twin(folder);
	twins.clear();
	twins.set(folder, twin);
	return twin;
}
