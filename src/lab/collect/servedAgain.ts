/**
 * Asking a page about its style makes the browser ask for sheets and documents a second time, where its cache may not
 * answer for them. The measured host shall not see that: they are answered from what came.
 */
import type { CDPSession } from 'playwright-core';
import type { NetworkCollector } from './network';

/** Sheets, and the document itself, which the browser asks for as "other". */
const ASKED_AGAIN = [{ resourceType: 'Stylesheet' as const }, { resourceType: 'Other' as const }];
const OK = 200;

/** @param asking session whose questions make the browser ask @param kept session that holds the bodies that came */
export async function servingFromWhatCame<Result>(
	asking: CDPSession,
	kept: CDPSession,
	network: NetworkCollector,
	work: () => Promise<Result>
): Promise<Result> {
	const came = new Map(network.finished.map((answer) => [answer.url, answer]));
	asking.on('Fetch.requestPaused', async ({ requestId, request }) => {
		const answer = came.get(request.url);
		const body = answer && (await kept.send('Network.getResponseBody', { requestId: answer.id }).catch(() => null));
		const reply = !answer
			? asking.send('Fetch.continueRequest', { requestId })
			: body
				? asking.send('Fetch.fulfillRequest', {
						requestId,
						responseCode: OK,
						responseHeaders: [{ name: 'content-type', value: answer.mimeType ?? 'text/plain' }],
						body: body.base64Encoded ? body.body : Buffer.from(body.body).toString('base64')
					})
				: asking.send('Fetch.failRequest', { requestId, errorReason: 'Aborted' });
		await reply.catch(() => undefined);
	});
	await asking.send('Fetch.enable', { patterns: ASKED_AGAIN });
	try {
		return await work();
	} finally {
		await asking.send('Fetch.disable').catch(() => undefined);
	}
}
