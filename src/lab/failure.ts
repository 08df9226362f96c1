/** A load that failed: a reason code for programs and words for people, typed at the lab's boundary. */
import type { FailureCode, FailureReason } from '$core/load/record/record';
import { failureReason } from '$core/wording/failure';
import type { ShapeLog } from './shaper/socks';

export class LoadFailure extends Error {
	constructor(readonly reason: FailureReason) {
		super(reason.message);
	}
}

export const failure = (code: FailureCode, detail = ''): LoadFailure => new LoadFailure(failureReason(code, detail));

/** The failure behind a network error of the main document, by the browser's error name and what the shaper saw. */
export function failureOfNavigation(errorText: string, host: string, seen: ShapeLog | null): LoadFailure {
	const name = (address: string) => address.replace(/^\[|\]$/g, '');
	const refusal = seen?.connections.findLast(
		(connection) => name(connection.host) === name(host) && connection.error !== null
	);
	if (refusal?.error === 'no-answer') return failure('no-answer', '20');
	if (refusal?.error) return failure(refusal.error, host);
	const error = errorText.replace(/^net::/, '');
	if (/CERT|SSL_PROTOCOL|SSL_VERSION/.test(error)) return failure('certificate', error);
	if (error === 'ERR_TOO_MANY_REDIRECTS') return failure('redirect-loop');
	if (error === 'ERR_NAME_NOT_RESOLVED') return failure('unresolvable', host);
	if (error === 'ERR_CONNECTION_REFUSED') return failure('refused', host);
	if (error === 'ERR_EMPTY_RESPONSE') return failure('network', 'the site closed the connection without an answer');
	if (error === 'ERR_ABORTED') return failure('network', 'the page stopped the load');
	return failure('network', error);
}
