/** A load that failed: a reason code for programs and words for people, typed at the lab's boundary. */
import type { FailureCode, FailureReason } from '$core/load/record/record';
import type { ShapeLog } from './shaper/socks';

export class LoadFailure extends Error {
	constructor(readonly reason: FailureReason) {
		super(reason.message);
	}
}

type Words = readonly [message: (detail: string) => string, advice: string];

const WORDS: Record<FailureCode, Words> = {
	'bad-url': [(url) => `“${url}” is not a web address.`, 'Give a full address that begins with http:// or https://.'],
	unresolvable: [
		(host) => `The host ${host} was not found.`,
		'Check the spelling, or send the host elsewhere with ZAFRA_HOST_MAP.'
	],
	refused: [
		(host) => `${host} refused the connection.`,
		'Check that the site is up and that its address and port are right.'
	],
	'private-address': [
		(host) => `${host} is a private or local address, which pages may not reach from the lab.`,
		'If this is meant, map the host with ZAFRA_HOST_MAP.'
	],
	certificate: [
		(detail) => `The certificate of the site was not accepted (${detail}).`,
		'Mend the certificate; the lab never skips this check.'
	],
	'http-status': [
		(status) => `The page answered with status ${status}.`,
		'Open the page in a browser; a load of an error page measures nothing.'
	],
	download: [
		(type) => `The address answered with a download (${type}) and not with a page.`,
		'Give the address of a page.'
	],
	'redirect-loop': [() => 'The address redirects in a circle.', 'Mend the redirects, or give the final address.'],
	'time-out': [
		(detail) => `The page did not finish in time: ${detail}.`,
		'Look at the last requests of the load, or raise the time cap of the conditions.'
	],
	'no-answer': [
		(seconds) => `The site did not answer within ${seconds} s.`,
		'Check that the site is up, or raise the time cap of the conditions.'
	],
	crash: [() => 'The page crashed the browser tab.', 'Load it again; if it crashes each time, the page is at fault.'],
	'browser-missing': [
		() => 'Chromium was not found on this machine.',
		'Install it with: apt-get install chromium. Or name it in ZAFRA_CHROMIUM.'
	],
	'browser-start': [
		(detail) => `Chromium could not be started: ${detail}.`,
		'Mend that and start the trial again; what was measured is kept.'
	],
	'browser-killed': [
		() => 'Chromium was ended or stopped from outside in the middle of the load.',
		'The load is tried three times; if it keeps ending, look at the memory of the machine.'
	],
	'browser-blind': [
		() => 'Chromium painted nothing any more, not even the lab’s own page.',
		'The load is made again in a new browser. If it happens often, a page before it leaves the browser without strength.'
	],
	'nothing-painted': [
		() => 'Nothing was painted until the page had settled, although the browser paints.',
		'Open the page in a browser: it may be empty, invisible, or waiting for an interaction.'
	],
	'error-page': [
		(detail) => `The page left for an address that could not be loaded: ${detail}`,
		'Look at what sends visitors there. A load of the browser’s own error page measures nothing.'
	],
	'visitor-state': [
		(detail) => `The visitor state ${detail}`,
		'Do the steps by hand in a browser, then mend the visitor state of the site.'
	],
	network: [
		(detail) => `The page could not be loaded: ${detail}.`,
		'Open the page in a browser and look at the network there.'
	],
	internal: [
		(detail) => `The lab itself failed: ${detail}.`,
		'This is a fault of Zafra. The log of the runner says more.'
	]
};

export function failure(code: FailureCode, detail = ''): LoadFailure {
	const [message, advice] = WORDS[code];
	return new LoadFailure({ code, message: message(detail), advice });
}

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
