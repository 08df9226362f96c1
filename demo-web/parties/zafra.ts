/** The visits' script of Zafra on a site: asked for at the site's own host, which hands requests on to Zafra. */
import type { Answer, Ask } from '../world';

const PATHS = new Set(['/visit', '/visit/zafra.js']);
const WITHIN_MS = 10_000;

/** Key of a site of the demonstration, as Zafra's demo data know it. */
export const visitKey = (host: string): string => `demo-${host.replace(/\.test$/, '')}`;

/** Also hands the site's own analytics the notes of the script, once that has come. */
export const visitTags = (host: string): string =>
	`<script src="https://stilewatch.test/notes.js" async></script><script src="/visit/zafra.js?site=${visitKey(host)}" async></script>`;

/** @param zafra where Zafra listens; null where there is none */
export async function answerVisit(ask: Ask, zafra: string | null): Promise<Answer | null> {
	if (!PATHS.has(ask.path) || zafra === null) return null;
	const headers: Record<string, string> = {};
	for (const name of ['origin', 'user-agent', 'content-type'] as const)
		if (ask.headers[name]) headers[name] = String(ask.headers[name]);
	try {
		const reply = await fetch(`${zafra}${ask.path}?${ask.query}`, {
			method: ask.method,
			headers,
			body: ask.method === 'POST' ? ask.body : undefined,
			signal: AbortSignal.timeout(WITHIN_MS)
		});
		return {
			status: reply.status,
			type: (reply.headers.get('content-type') ?? 'text/plain').split(';')[0]!,
			body: reply.status === 204 ? '' : Buffer.from(await reply.arrayBuffer()),
			headers: { 'cache-control': reply.headers.get('cache-control') ?? 'no-store' }
		};
	} catch {
		return { status: 502, type: 'text/plain', body: 'Zafra does not answer.\n' };
	}
}
