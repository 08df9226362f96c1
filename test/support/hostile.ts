/**
 * Pages that try to stop the lab, to get out of it, or to look better than they are. Each is invented for this test.
 */
import type { RequestListener } from 'node:http';
import { gzipSync } from 'node:zlib';
import type { FailureCode } from '$core/load/record/record';
import type { Step } from '$core/load/journey/steps';
import { HOSTILE_PAINTS } from './hostilePaints';

export interface HostilePage {
	name: string;
	/** Body of the page; `{port}` stands for the listener's port, `{udp}` for its UDP port. */
	html: string;
	/** How the load must end; a list where both ends are right. */
	ends: (FailureCode | 'ok')[];
	input?: 'nudge';
	steps?: Step[];
}

const script = (code: string) => `<script>${code}</script>`;
const afterLoad = (ms: number, code: string) =>
	script(`addEventListener('load', () => setTimeout(() => { ${code} }, ${ms}))`);
const FOREVER = 'for (;;);';
/** Ways to write the address of this machine. */
const LOCAL = [
	'127.0.0.1',
	'localhost',
	'127.1',
	'2130706433',
	'0x7f000001',
	'0177.0.0.1',
	'0.0.0.0',
	'[::1]',
	'[::ffff:127.0.0.1]',
	'a.localhost',
	'127.0.0.1.'
];
const fetches = LOCAL.map(
	(host) => `fetch('http://${host}:{port}/from-page').catch(() => 0); new Image().src = 'http://${host}:{port}/image';`
).join('');

const BEHAVES: HostilePage[] = [
	{ name: 'an endless loop just after the page had settled', html: afterLoad(450, FOREVER), ends: ['time-out', 'ok'] },
	{ name: 'an endless loop at once', html: script(FOREVER), ends: ['time-out'] },
	{
		name: 'an endless loop in the load event',
		html: script(`addEventListener('load', () => { ${FOREVER} })`),
		ends: ['time-out']
	},
	{
		name: 'an endless pointer handler, nudged',
		html: script(`addEventListener('mousemove', () => { ${FOREVER} })`),
		input: 'nudge',
		ends: ['time-out']
	},
	{
		name: 'an endless key handler, nudged',
		html: script(`addEventListener('keydown', () => { ${FOREVER} })`),
		input: 'nudge',
		ends: ['time-out']
	},
	{
		name: 'an endless click handler, clicked',
		html: `<button>Go</button>${script(`document.querySelector('button').onclick = () => { ${FOREVER} }`)}`,
		steps: [{ click: 'button' }],
		ends: ['time-out']
	},
	{
		name: 'an endless input handler, typed into',
		html: `<input>${script(`document.querySelector('input').oninput = () => { ${FOREVER} }`)}`,
		steps: [{ type: 'ab', into: 'input' }],
		ends: ['time-out']
	},
	{
		name: 'an endless scroll handler, scrolled',
		html: `<div style="height:9000px">tall</div>${script(`addEventListener('scroll', () => { ${FOREVER} })`)}`,
		steps: [{ scroll: 'bottom' }],
		ends: ['time-out', 'ok']
	},
	{
		name: 'endless microtasks',
		html: afterLoad(10, `const again = () => Promise.resolve().then(again); again()`),
		ends: ['time-out']
	},
	{
		name: 'endless animation frames',
		html: script(`const again = () => requestAnimationFrame(again); again()`),
		ends: ['ok']
	},
	{
		name: 'heavy animation frames without end',
		html: script(
			`const again = () => { const until = performance.now() + 60; while (performance.now() < until); requestAnimationFrame(again) }; again()`
		),
		ends: ['ok', 'time-out']
	},
	{
		name: 'endless timers',
		html: script(`setInterval(() => { const until = performance.now() + 70; while (performance.now() < until); }, 80)`),
		ends: ['ok', 'time-out']
	},
	{
		name: 'a chain of messages without end',
		html: script(
			`const c = new MessageChannel(); c.port1.onmessage = () => c.port2.postMessage(1); c.port2.postMessage(1)`
		),
		ends: ['ok', 'time-out']
	},
	{
		name: 'endless history entries',
		html: afterLoad(10, `for (let i = 0; ; i++) history.pushState({}, '', '/h' + i)`),
		ends: ['time-out']
	},
	{
		name: 'moving on without end',
		html: script(`setTimeout(() => location.replace('/hostile?again=' + Math.random()), 80)`),
		ends: ['time-out', 'ok', 'network']
	},
	{
		name: 'reloading without end',
		html: script(`setTimeout(() => location.reload(), 60)`),
		ends: ['time-out', 'ok', 'network']
	},
	{
		name: 'a flood of console messages',
		html: script(`for (let i = 0; i < 100000; i++) console.error('noise ' + i)`),
		ends: ['ok', 'time-out']
	},
	{
		name: 'huge console messages',
		html: script(`const big = 'x'.repeat(5e6); for (let i = 0; i < 20; i++) console.error(big)`),
		ends: ['ok', 'time-out']
	},
	{
		name: 'three hundred thousand nodes',
		html: script(
			`const many = document.createDocumentFragment(); for (let i = 0; i < 300000; i++) many.append(document.createElement('b')); document.documentElement.append(many)`
		),
		ends: ['ok', 'time-out']
	},
	{
		name: 'a very deep tree',
		html: script(
			`let at = document.documentElement; for (let i = 0; i < 4000; i++) at = at.appendChild(document.createElement('p'))`
		),
		ends: ['ok', 'crash', 'time-out', 'browser-killed']
	},
	{
		name: '400 MB of memory',
		html: script(`window.kept = []; for (let i = 0; i < 50; i++) kept.push(new Uint8Array(8e6).fill(i))`),
		ends: ['ok']
	},
	{
		name: 'a heap that grows without end',
		html: script(`window.kept = []; for (;;) kept.push({ a: new Array(1e5).fill(Math.random()) })`),
		ends: ['crash', 'time-out', 'browser-killed']
	},
	{
		name: 'a compressed body that grows a thousandfold',
		html: '<img src="/bomb.svg"><script src="/bomb.js"></script>',
		ends: ['ok', 'time-out', 'crash']
	},
	{
		name: 'popups',
		html: script(`for (let i = 0; i < 20; i++) open('/hostile?popup=' + i); open('http://127.0.0.1:{port}/popup')`),
		ends: ['ok']
	},
	{
		name: 'alerts, questions and prompts',
		html: script(`for (let i = 0; i < 5; i++) { alert(i); confirm(i); prompt(i) }`),
		ends: ['ok']
	},
	{
		name: 'a question before leaving, left',
		html: script(`addEventListener('beforeunload', (e) => { e.preventDefault(); e.returnValue = 'stay' })`),
		steps: [{ open: '/hostile?left' }],
		ends: ['ok', 'time-out']
	},
	{
		name: 'overwritten built-ins',
		html: script(
			`Object.defineProperty = () => {}; Array.prototype.map = () => { throw 1 }; JSON.stringify = () => 'x'; performance.now = () => NaN; performance.getEntriesByType = () => []; window.PerformanceObserver = null; Promise.prototype.then = Promise.prototype.then; document.querySelectorAll = () => { throw 1 }; Date.now = () => -1`
		),
		ends: ['ok']
	},
	{
		name: 'a frozen prototype and getters that loop',
		html: script(`Object.freeze(Object.prototype); Object.defineProperty(document, 'title', { get() { ${FOREVER} } })`),
		ends: ['ok', 'time-out']
	},
	{
		name: 'a clobbered document',
		html: '<form id="f"><input name="body"><input name="querySelectorAll"></form><img name="body"><img name="documentElement"><a id="performance"></a>',
		ends: ['ok']
	},
	{ name: 'all spellings of this machine', html: script(fetches), ends: ['ok'] },
	{
		name: 'a frame of this machine',
		html: '<iframe src="http://127.0.0.1:{port}/frame"></iframe><iframe src="file:///etc/passwd"></iframe>',
		ends: ['ok']
	},
	{
		name: 'a form sent to this machine',
		html: `<form action="http://127.0.0.1:{port}/form" method="post"></form>${afterLoad(20, 'document.forms[0].submit()')}`,
		ends: ['error-page']
	},
	{
		name: 'a socket to this machine',
		html: script(
			`new WebSocket('ws://127.0.0.1:{port}/socket'); new EventSource('http://127.0.0.1:{port}/events'); navigator.sendBeacon('http://127.0.0.1:{port}/beacon', 'x')`
		),
		ends: ['ok']
	},
	{
		name: 'workers that run for ever',
		html: script(
			`const code = URL.createObjectURL(new Blob(['fetch("http://127.0.0.1:{port}/worker").catch(() => 0); for (;;);'])); new Worker(code); new Worker(code)`
		),
		ends: ['ok', 'time-out']
	},
	{
		name: 'a shared worker that asks this machine',
		html: script(
			`new SharedWorker(URL.createObjectURL(new Blob(['fetch("http://127.0.0.1:{port}/shared").catch(() => 0)'])))`
		),
		ends: ['ok']
	},
	{
		name: 'a service worker that asks this machine',
		html: script(`navigator.serviceWorker?.register('/sw.js')`),
		ends: ['ok']
	},
	{
		name: 'WebRTC',
		html: script(
			`(async () => { for (const urls of ['stun:127.0.0.1:{udp}', 'turn:127.0.0.1:{udp}?transport=udp', 'stun:localhost:{udp}']) { const c = new RTCPeerConnection({ iceServers: [{ urls, username: 'a', credential: 'b' }] }); c.createDataChannel('x'); await c.setLocalDescription(await c.createOffer()) } })()`
		),
		ends: ['ok']
	},
	{
		name: 'WebRTC to a remote candidate',
		html: script(
			`(async () => { const a = new RTCPeerConnection(), b = new RTCPeerConnection(); a.createDataChannel('x'); await a.setLocalDescription(await a.createOffer()); await b.setRemoteDescription(a.localDescription); await b.setLocalDescription(await b.createAnswer()); await a.setRemoteDescription(b.localDescription); await a.addIceCandidate({ candidate: 'candidate:1 1 udp 2113937151 127.0.0.1 {udp} typ host', sdpMid: '0' }) })()`
		),
		ends: ['ok']
	},
	{
		name: 'WebTransport',
		html: script(`try { new WebTransport('https://127.0.0.1:{udp}/').ready.catch(() => 0) } catch {}`),
		ends: ['ok']
	},
	{
		name: 'prefetching and prerendering this machine',
		html: `<script type="speculationrules">{"prefetch":[{"source":"list","urls":["http://127.0.0.1:{port}/prefetch"],"eagerness":"immediate"}],"prerender":[{"source":"list","urls":["/hostile?prerender"],"eagerness":"immediate"}]}</script><link rel="prefetch" href="http://127.0.0.1:{port}/link"><link rel="dns-prefetch" href="//127.0.0.1"><link rel="preconnect" href="http://127.0.0.1:{port}">`,
		ends: ['ok']
	},
	{
		name: 'moving on to a file',
		html: afterLoad(20, `location.href = 'file:///etc/passwd'`),
		ends: ['ok', 'bad-url', 'network']
	},
	{
		name: 'moving on to the browser’s own pages',
		html: afterLoad(
			20,
			`location.href = 'chrome://version'; location.href = 'view-source:http://hostile.test/'; location.href = 'javascript:void 0'`
		),
		ends: ['ok', 'bad-url', 'network']
	},
	{ name: 'a step that opens a file', html: '<p>plain</p>', steps: [{ open: 'file:///etc/passwd' }], ends: ['ok'] },
	{
		name: 'a step that opens the browser’s own page',
		html: '<p>plain</p>',
		steps: [{ open: 'chrome://version' }],
		ends: ['ok']
	},
	{
		name: 'a step that opens a page in the address',
		html: '<p>plain</p>',
		steps: [{ open: 'data:text/html,<h1>x' }],
		ends: ['ok']
	},
	{ name: 'print', html: script('print(); print()'), ends: ['ok'] },
	{
		name: 'clipboard, camera, place and notifications',
		html: script(
			`navigator.clipboard?.writeText('x').catch(() => 0); navigator.clipboard?.readText().catch(() => 0); navigator.mediaDevices?.getUserMedia({ video: true, audio: true }).catch(() => 0); navigator.geolocation?.getCurrentPosition(() => 0, () => 0); Notification.requestPermission()`
		),
		ends: ['ok']
	},
	{
		name: 'file choosers',
		html: `<input type="file">${afterLoad(20, `document.querySelector('input').click(); window.showOpenFilePicker?.().catch(() => 0)`)}`,
		ends: ['ok']
	},
	{
		name: 'downloads',
		html: afterLoad(
			20,
			`for (let i = 0; i < 5; i++) { const a = document.createElement('a'); a.href = '/file.zip?' + i; a.download = 'x'; a.click() }`
		),
		ends: ['ok', 'download']
	},
	{
		name: 'full screen and pointer lock',
		html: `<button>x</button>${script(`document.documentElement.requestFullscreen?.().catch(() => 0); document.body?.requestPointerLock?.()`)}`,
		input: 'nudge',
		ends: ['ok']
	},
	{
		name: 'a page that closes itself',
		html: afterLoad(20, 'close(); window.open("", "_self").close()'),
		ends: ['ok', 'time-out', 'crash', 'network', 'browser-killed', 'internal']
	},
	{
		name: 'a dialog that blocks and a picture that never comes',
		html: '<dialog open>x</dialog><img src="/never">',
		ends: ['time-out']
	}
];

export const HOSTILE: readonly HostilePage[] = [...BEHAVES, ...HOSTILE_PAINTS];

/** Answers `/hostile?N` with the page of that number, and the files that the pages ask for. */
export function hostileServer(fill: (html: string) => string): RequestListener {
	const zeros = Buffer.alloc(100_000_000, 32);
	const bomb = gzipSync(zeros);
	return (request, response) => {
		const url = new URL(request.url ?? '/', 'http://hostile.test');
		const answer = (type: string, body: string | Buffer, more: Record<string, string> = {}) =>
			response.writeHead(200, { 'content-type': type, ...more }).end(body);
		if (url.pathname === '/never') return;
		if (url.pathname === '/bomb.js') return void answer('text/javascript', bomb, { 'content-encoding': 'gzip' });
		if (url.pathname === '/bomb.svg') return void answer('image/svg+xml', bomb, { 'content-encoding': 'gzip' });
		if (url.pathname === '/sw.js')
			return void answer('text/javascript', fill(`fetch('http://127.0.0.1:{port}/sw').catch(() => 0)`));
		if (url.pathname === '/file.zip')
			return void answer('application/zip', 'zip', { 'content-disposition': 'attachment; filename=x.zip' });
		const page = HOSTILE[Number(url.search.slice(1).split('=')[0])];
		const body = url.pathname === '/clean' ? CLEAN : (page?.html ?? '<p>Another page</p>');
		answer('text/html', `<!doctype html><html lang="en"><title>Hostile</title><h1>Words</h1>${fill(body)}`);
	};
}

/** Loaded after each hostile page: its figures must not change. */
const CLEAN = `<p id="moved">Words that move</p><img src="/clean.svg" alt="">${script(`setTimeout(() => { const box = document.createElement('div'); box.style.height = '120px'; document.body.prepend(box) }, 250)`)}`;
