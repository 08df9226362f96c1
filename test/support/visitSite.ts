/** A site with everything that a visit can do. */
import { readFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { gzipSync } from 'node:zlib';

export const WEB_VITALS = readFileSync('node_modules/web-vitals/dist/web-vitals.iife.js');
export const SCRIPT =
	'function used() { return 1; } used();\n' + 'function never() { return "words that are never needed"; }\n'.repeat(60);
export const LONG_TEXT = 'The tide waits for nobody on the pier at Harrow Quay. '.repeat(200);

export const html = (title: string, body: string, head = '') =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title}</title>${head}</head><body>${body}</body></html>`;

export const NESTED = html(
	'Nested',
	`<h1>Nested</h1><main>${'<div>'.repeat(14)}<p id="deepest">Deep</p>${'</div>'.repeat(14)}<ul>${'<li>One</li>'.repeat(30)}</ul></main>
	<div id="slot" style="width:300px;height:250px"></div><table><tr><td>Cell</table><p>Unclosed<p>Paragraphs<svg width="20" height="20"><circle r="5"/></svg>`
);

export const PAGES: Record<string, string> = {
	'/plain': html('Plain', '<h1>Plain</h1>'),
	'/nested': NESTED,
	'/keys': html(
		'Keys',
		'<form onsubmit="event.preventDefault();out.textContent=`sent ${q.value}`"><input id="q"><button>Go</button></form><p id="out"></p><script>q.addEventListener("keydown",(event)=>{if(event.key==="Escape")q.value=""})</script>'
	),
	'/interact': html(
		'Interact',
		`<button id="slow">Slow</button><button id="quick">Quick</button><input id="name"><div id="out"></div>`,
		`<script src="/web-vitals.js"></script><script>
		webVitals.onINP((metric) => navigator.sendBeacon('/report', JSON.stringify({ name: metric.name, value: metric.value })), { reportAllChanges: true });
		addEventListener('DOMContentLoaded', () => {
			document.querySelector('#slow').onclick = () => { const until = performance.now() + 160; while (performance.now() < until); document.querySelector('#out').textContent = 'Done slowly'; fetch('/data.json'); };
			document.querySelector('#quick').onclick = () => { const box = document.createElement('p'); box.textContent = 'Done quickly'; document.querySelector('#out').append(box); };
		});</script>`
	),
	'/swap': html(
		'Swap',
		`<p id="old">Timetable</p><button id="swap">Fares</button>`,
		`<script>addEventListener('DOMContentLoaded', () => {
			document.querySelector('#swap').onclick = () => setTimeout(() => { document.querySelector('#old').outerHTML = '<p id="new">Fares of today</p>'; }, 500);
		});</script>`
	),
	'/covered': html(
		'Covered',
		'<button id="under">Under</button><div id="wall" style="position:fixed;inset:0;background:#eee">We use cookies on this page. Accept?</div>'
	),
	'/held': html(
		'Held',
		'<h1>Held back</h1><div style="height:3000px"></div>',
		`<script>let woke = false; for (const kind of ['pointermove', 'mousemove', 'scroll', 'keydown', 'touchstart']) addEventListener(kind, () => {
			if (woke) return; woke = true; const script = document.createElement('script'); script.src = '/late.js'; document.head.append(script); }, { passive: true });</script>`
	),
	'/cached': html('Cached', '<h1>Cached</h1><img src="/kept.svg" width="40" height="40" alt="">'),
	'/worker': html(
		'Worker',
		'<h1>Worker</h1><p id="said"></p>',
		`<script>
		navigator.serviceWorker.register('/sw.js').then(() => navigator.serviceWorker.ready).then(() => new Promise((go) => navigator.serviceWorker.controller ? go() : navigator.serviceWorker.addEventListener('controllerchange', go)))
		.then(() => fetch('/through-worker.txt')).then((r) => r.text()).then((t) => document.querySelector('#said').textContent = t);</script>`
	),
	'/shadow': html(
		'Shadow',
		'<x-card></x-card>',
		`<script>customElements.define('x-card', class extends HTMLElement { constructor() { super(); this.attachShadow({ mode: 'open' }).innerHTML = '<h1 style="font-size:60px">Inside the shadow</h1><button id="inner">Press</button><p id="told"></p>'; this.shadowRoot.querySelector('#inner').onclick = () => this.shadowRoot.querySelector('#told').textContent = 'pressed'; } });</script>`
	),
	'/framed': html('Framed', '<h1>Outer</h1><iframe src="http://other.test/inner" width="400" height="200"></iframe>'),
	'/inner': html(
		'Inner',
		'<p>Inner words</p><script>const until = performance.now() + 120; while (performance.now() < until);</script><img src="/kept.svg?inner" alt="">'
	),
	'/blocks': html(
		'Blocks',
		'<h1>Blocks</h1><script src="http://chat.test/chat.js"></script><script>fetch("http://127.0.0.1:4170/api/trials").catch(() => 0); fetch("http://10.0.0.7/").catch(() => 0); const f = document.createElement("iframe"); f.src = "file:///etc/passwd"; document.body.append(f);</script>'
	),
	'/weights': html(
		'Weights',
		`<h1>Weights</h1><p>${LONG_TEXT}</p><script src="/code.js"></script>`,
		'<link rel="stylesheet" href="/look.css">'
	)
};

export const reported = new Map<string, number>();
export const seenHeaders: Record<string, string | string[] | undefined>[] = [];

export function site(request: IncomingMessage, response: ServerResponse): void {
	const url = new URL(request.url ?? '/', 'http://site.test');
	const send = (type: string, body: string | Buffer, more: Record<string, string> = {}) =>
		void response.writeHead(200, { 'content-type': type, ...more }).end(body);
	const page = PAGES[url.pathname];
	if (page) {
		seenHeaders.push(request.headers);
		if (url.pathname === '/weights') return send('text/html', gzipSync(page), { 'content-encoding': 'gzip' });
		return send('text/html; charset=utf-8', page);
	}
	switch (url.pathname) {
		case '/web-vitals.js':
			return send('text/javascript', WEB_VITALS);
		case '/late.js':
			return send(
				'text/javascript',
				`const until = performance.now() + 130; while (performance.now() < until);\n//${'x'.repeat(20_000)}`
			);
		case '/code.js':
			return send('text/javascript', SCRIPT, { 'cache-control': 'no-store' });
		case '/look.css':
			return send('text/css', `h1 { color: #123 }\n${'.never { color: red }\n'.repeat(80)}`, {
				'cache-control': 'max-age=86400'
			});
		case '/kept.svg':
			return send(
				'image/svg+xml',
				'<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><rect width="40" height="40"/></svg>',
				{ 'cache-control': 'max-age=600' }
			);
		case '/sw.js':
			return send(
				'text/javascript',
				`self.onactivate = (e) => e.waitUntil(clients.claim()); self.onfetch = (e) => { if (e.request.url.includes('through-worker')) e.respondWith(fetch('/worker-data.txt')); };`
			);
		case '/worker-data.txt':
			return send('text/plain', 'Brought by the worker. '.repeat(50));
		case '/data.json':
			return send('application/json', '{}');
		case '/locked':
			if (request.headers.authorization !== `Basic ${Buffer.from('keeper:tide').toString('base64')}`)
				return void response.writeHead(401, { 'www-authenticate': 'Basic realm="x"' }).end('No');
			return send('text/html', html('Open', '<h1>Open</h1>'));
		case '/report': {
			let body = '';
			request
				.on('data', (chunk) => (body += chunk))
				.on('end', () => {
					const { name, value } = JSON.parse(body) as { name: string; value: number };
					reported.set(name, value);
					response.end();
				});
			return;
		}
		default:
			return void response.writeHead(404).end();
	}
}
