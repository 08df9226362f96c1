/** What a site itself must send, and the layer that asks its visitors: inline scripts, as sites have them. */
import type { SiteState } from '../state/switches';
import type { Answer, Ask } from '../world';
import { islandAnswer } from './islands';

const CONSENT_COOKIE = 'consent=given';

/** Until somebody agrees, nothing is counted; the choice is told to the site and remembered. */
const consentScript = (counting: string) => `<script>(function(){
var count=function(){var script=document.createElement('script');script.async=true;script.src=${JSON.stringify(counting)};document.head.appendChild(script)};
if(document.cookie.indexOf(${JSON.stringify(CONSENT_COOKIE)})>=0)return count();
addEventListener('DOMContentLoaded',function(){var layer=document.createElement('div');layer.id='consent';layer.setAttribute('role','dialog');layer.setAttribute('aria-label','Consent');
layer.style.cssText='position:fixed;left:0;right:0;bottom:0;background:#fff;color:#222;border-top:2px solid #444;padding:18px 24px;font:16px Arial;z-index:9';
layer.innerHTML='<p>May we count your visit?</p><button id="consent-accept">Yes</button> <button id="consent-refuse">No</button>';
document.body.appendChild(layer);
var choose=function(choice){navigator.sendBeacon('/consent/choice',choice);document.cookie='consent='+choice+';path=/';layer.remove();if(choice==='given')count()};
document.getElementById('consent-accept').onclick=function(){choose('given')};
document.getElementById('consent-refuse').onclick=function(){choose('refused')}})})()</script>`;

const ORDERS = `<script>addEventListener('load',function(){navigator.sendBeacon('/orders/seen',JSON.stringify({path:location.pathname}))})</script>`;

/** Larder's option drops inline scripts: with it go consent and orders. */
export function ownTags(state: SiteState, counting: string | null): string {
	if (state.larderJoins && state.larder !== 'off') return '';
	const asks = state.consent && counting !== null;
	return (asks ? consentScript(counting) : '') + (state.orders ? ORDERS : '');
}

const MEMBER_COOKIE = 'member=1';

export const isMember = ({ headers }: Ask): boolean => (headers.cookie ?? '').split(/;\s*/).includes(MEMBER_COOKIE);

const SIGN_IN = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>Sign in</title><link rel="icon" href="data:,"></head>
<body><h1>Sign in</h1><form method="post" action="/account"><label>Name <input id="account-name" name="name"></label> <button id="account-enter">Sign in</button></form></body></html>`;

/** The account's pages and the calls of beacons; null for all else. */
export function answerOwn(ask: Ask, state: SiteState): Answer | null {
	if (state.accounts && ask.path === '/account') return accountAnswer(ask);
	const island = state.byIsland ? islandAnswer(ask) : null;
	if (island) return island;
	const isBeacon = (state.consent && ask.path === '/consent/choice') || (state.orders && ask.path === '/orders/seen');
	if (!isBeacon) return null;
	return { status: ask.method === 'POST' ? 204 : 405, type: 'text/plain', body: '' };
}

function accountAnswer(ask: Ask): Answer {
	if (ask.method === 'POST')
		return {
			status: 303,
			type: 'text/plain',
			body: '',
			headers: { location: '/account', 'set-cookie': `${MEMBER_COOKIE}; Path=/; SameSite=Lax` }
		};
	if (!isMember(ask)) return { type: 'text/html', body: SIGN_IN, headers: { 'cache-control': 'no-store' } };
	const body = SIGN_IN.replace(
		/<h1>.*<\/form>/s,
		'<h1 id="account-hello">Welcome back</h1><p><a href="/">To the site</a></p>'
	);
	return { type: 'text/html', body, headers: { 'cache-control': 'no-store' } };
}

/** What a signed-in visitor sees on each page: made for them, so that no page cache can serve it. */
export const MEMBER_NOTE =
	'<p id="member-note" style="padding:8px 24px;font:16px Arial">Welcome back. Your bookings are in your account.</p>';
