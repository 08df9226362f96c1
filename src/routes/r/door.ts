/** The door for clients: who has the link may read that version, and nothing else. */
import type { Cookies } from '@sveltejs/kit';
import { REPORT_POLICY } from '../reports/versionPage';
import { isPhrase, passOf, TryLimit } from '$lib/server/rooms/reports/shares';
import { openShare, type OpenedShare } from '$lib/server/rooms/reports/view';

/** Links that open nothing, by address; pass phrases that were wrong, by link and address. */
const links = new TryLimit();
const phrases = new TryLimit();
const COOKIE = 'report_pass';
const HEADERS = {
	'content-type': 'text/html; charset=utf-8',
	'x-robots-tag': 'noindex, nofollow',
	'cache-control': 'private, no-store',
	'content-security-policy': REPORT_POLICY
};

const page = (body: string) =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><title>Report</title><style>body{font:1rem/1.5 system-ui,sans-serif;color:#1d2b26;background:#faf8f3;max-width:32rem;margin:12vh auto;padding:0 1.2rem}input,button{font:inherit;padding:.55rem .8rem;border:1px solid #56655e;border-radius:2px;background:#fff;color:inherit}button{background:#1f6f54;color:#fff;border-color:#1f6f54}label{display:block;margin-bottom:.3rem}</style></head><body><main>${body}</main></body></html>`;

export const htmlAnswer = (html: string, status = 200) => new Response(html, { status, headers: HEADERS });

const GONE = page('<h1>Nothing here</h1><p>This link is not valid, or no longer is. Ask the sender for a new one.</p>');
const SLOWER = page('<h1>Too many tries</h1><p>Wait a minute, then open the link again.</p>');
const form = (problem: string) =>
	page(
		`<h1>Pass phrase</h1><form method="post"><p><label for="phrase">The sender has told it to you.</label><input id="phrase" name="phrase" type="password" autocomplete="off" required autofocus${problem ? ' aria-describedby="problem"' : ''}> <button>Open the report</button></p>${problem ? `<p id="problem" role="alert">${problem}</p>` : ''}</form>`
	);

export type Entry = { open: OpenedShare } | { answer: Response };

interface Visitor {
	locals: App.Locals;
	params: { token: string };
	cookies: Cookies;
	getClientAddress(): string;
}

/** Wrong, revoked and expired links all get the same answer. */
export function enter({ locals, params: { token }, cookies, getClientAddress }: Visitor): Entry {
	const open = openShare(locals.db, token);
	if (!open) return { answer: noSuchLink(getClientAddress()) };
	const isAllowed = open.phrase === null || cookies.get(COOKIE) === passOf(open, token);
	return isAllowed ? { open } : { answer: htmlAnswer(form(''), 401) };
}

/** A token cannot be guessed, so that a link that is good opens whatever else its reader's address has tried. */
function noSuchLink(address: string): Response {
	if (links.isOver(address)) return htmlAnswer(SLOWER, 429);
	links.note(address);
	return htmlAnswer(GONE, 404);
}

/** @returns the answer to a phrase that was typed: the page again, open, or why not */
export function tryPhrase(
	{ locals, params: { token }, cookies, getClientAddress }: Visitor,
	phrase: string,
	path: string
): Response {
	const address = getClientAddress();
	const open = openShare(locals.db, token);
	if (!open) return noSuchLink(address);
	if (open.phrase === null) return new Response(null, { status: 303, headers: { location: path } });
	const place = `${open.id} ${address}`;
	if (phrases.isOver(place)) return htmlAnswer(SLOWER, 429);
	if (!isPhrase(open.phrase, phrase)) {
		phrases.note(place);
		return htmlAnswer(form('That is not the pass phrase.'), 401);
	}
	cookies.set(COOKIE, passOf(open, token), { path, httpOnly: true, sameSite: 'strict', secure: false });
	return new Response(null, { status: 303, headers: { location: path } });
}
