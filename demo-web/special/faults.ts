/** faults.test: whatever can go wrong with a page, on demand. The index lists all of it. */
import type { Answer, Exchange, HostAnswer } from '../world';

const html = (body: string, title = 'Fault'): Answer => ({
	type: 'text/html',
	body: `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title><link rel="icon" href="data:,"></head><body><h1>${title}</h1>${body}</body></html>`
});
const script = (code: string, title: string) => html(`<p>Some text.</p><script>${code}</script>`, title);
const redirect = (location: string): Answer => ({ status: 302, type: 'text/plain', body: '', headers: { location } });
const HUGE_PARTS = 2000;
const HUGE_PART_BYTES = 10_000;

type Fault = [words: string, answer: (query: URLSearchParams, https: boolean) => HostAnswer];

export const FAULTS: Record<string, Fault> = {
	'/slow-headers': [
		'Headers after ?ms',
		(query) => ({ ...html('<p>At last.</p>', 'Slow headers'), waitMs: Number(query.get('ms') ?? 3000) })
	],
	'/drip': [
		'A body that comes drop by drop for ?s seconds',
		(query) => (exchange) => drip(exchange, Number(query.get('s') ?? 5))
	],
	'/truncated': ['A body that is shorter than it says', () => truncated],
	'/wrong-type': [
		'A picture that says it is HTML',
		() => ({ type: 'text/html', body: Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 74, 70, 73, 70]) })
	],
	'/download': [
		'A download',
		() => ({
			type: 'application/zip',
			body: 'PK',
			headers: { 'content-disposition': 'attachment; filename="archive.zip"' }
		})
	],
	'/silent': ['Never answers', () => () => undefined],
	'/reset': [
		'Closes the connection',
		() =>
			({ response }) =>
				void response.destroy()
	],
	'/loop': ['Redirects in a circle', () => redirect('/loop')],
	'/chain': [
		'A chain of ?n redirects',
		(query) =>
			Number(query.get('n') ?? 5) > 0
				? redirect(`/chain?n=${Number(query.get('n') ?? 5) - 1}`)
				: html('<p>There.</p>', 'End of the chain')
	],
	'/huge': [
		`${HUGE_PARTS} requests, 20 MB`,
		() =>
			html(
				`<div>${Array.from({ length: HUGE_PARTS - 1 }, (_, i) => `<img src="/part?i=${i}" alt="" width="4" height="4">`).join('')}</div>`,
				'Huge'
			)
	],
	'/part': [
		'A part of the huge page',
		() => ({ type: 'image/bmp', body: Buffer.alloc(HUGE_PART_BYTES, 66), compress: false })
	],
	'/endless-requests': [
		'A request every 100 ms, for ever',
		() => script("setInterval(function(){fetch('/tick?'+Math.random())},100)", 'Endless requests')
	],
	'/tick': ['An answer to that', () => ({ type: 'text/plain', body: 'tick' })],
	'/endless-script': [
		'A script that never ends, after the load',
		() => script("addEventListener('load',function(){setTimeout(function(){for(;;);},50)})", 'Endless script')
	],
	'/endless-image': ['An image that never comes', () => html('<img src="/silent" alt="">', 'Endless image')],
	'/alert': ['An alert', () => script("alert('Look here');document.title='After the alert'", 'Alert')],
	'/beforeunload': [
		'Asks before it is left',
		() => script("addEventListener('beforeunload',function(e){e.preventDefault();e.returnValue='x'})", 'Before unload')
	],
	'/popup': ['Opens a window', () => script("window.open('/tick','_blank')", 'Popup')],
	'/crash': [
		'Takes the tab down by asking for all memory',
		() =>
			script(
				'var all=[];(function more(){for(var i=0;i<50;i++)all.push(new Array(5e6).fill(i));setTimeout(more,0)})()',
				'Crash'
			)
	],
	'/navigates-away': [
		'Goes elsewhere by script',
		() => script("setTimeout(function(){location.href='/elsewhere'},300)", 'Leaving')
	],
	'/meta-refresh': [
		'Goes elsewhere by itself',
		() => ({
			...html(''),
			body: '<!doctype html><html lang="en"><meta http-equiv="refresh" content="0;url=/elsewhere"><title>Leaving</title><p>Wait.'
		})
	],
	'/elsewhere': ['Where they go', () => html('<p>You are here now.</p>', 'Elsewhere')],
	'/cookie-wall': [
		'A wall that covers the page until it is accepted',
		() =>
			html(
				'<p>Behind the wall.</p><div id="wall" role="dialog" aria-label="Cookies" style="position:fixed;inset:0;background:#fff;padding:40px"><h2>We would like to set cookies</h2><button onclick="document.cookie=\'accepted=yes;path=/\';document.getElementById(\'wall\').remove()">Accept all</button></div>',
				'Cookie wall'
			)
	],
	'/service-worker': [
		'Registers a service worker',
		() => script("navigator.serviceWorker.register('/worker.js')", 'Service worker')
	],
	'/worker.js': [
		'That worker',
		() => ({ type: 'text/javascript', body: "self.addEventListener('fetch',function(){});" })
	],
	'/frames': [
		'Frames, one of another site',
		(_, https) =>
			html(
				`<iframe src="/elsewhere" title="own"></iframe><iframe src="http${https ? 's' : ''}://truth.test/cls" title="other"></iframe>`,
				'Frames'
			)
	],
	'/shadow': [
		'Its largest text in a shadow tree',
		() =>
			script(
				"var host=document.createElement('div');document.body.append(host);host.attachShadow({mode:'open'}).innerHTML='<p style=\"font-size:60px\">Large words in the shadow</p>'",
				'Shadow'
			)
	],
	'/authentication': ['Asks for a name and a password (guest, guest)', () => authentication]
};

export function answerFaults(path: string, query: URLSearchParams, https: boolean): HostAnswer {
	const status = /^\/status\/(\d{3})$/.exec(path);
	if (status) return { ...html(`<p>Status ${status[1]}.</p>`, `Status ${status[1]}`), status: Number(status[1]) };
	if (path === '/')
		return html(
			`<ul>${Object.entries(FAULTS)
				.map(([href, [words]]) => `<li><a href="${href}">${words}</a></li>`)
				.join('')}<li><a href="/status/503">Any status, at /status/…</a></li></ul>`,
			'Faults on demand'
		);
	return FAULTS[path]?.[1](query, https) ?? null;
}

function drip({ response }: Exchange, seconds: number): void {
	response.writeHead(200, { 'content-type': 'text/html' });
	response.write('<!doctype html><html lang="en"><title>Drip</title><h1>Drip</h1>');
	let left = seconds * 5;
	const timer = setInterval(() => {
		if (left-- > 0) response.write(`<p>Drop ${left}.</p>`);
		else {
			clearInterval(timer);
			response.end('</html>');
		}
	}, 200);
	response.on('close', () => clearInterval(timer));
}

function truncated({ response }: Exchange): void {
	response.writeHead(200, { 'content-type': 'text/html', 'content-length': '100000' });
	response.write('<!doctype html><html lang="en"><title>Truncated</title><h1>Truncated</h1>');
	setTimeout(() => response.destroy(), 100);
}

function authentication({ request, response }: Exchange): void {
	const expected = `Basic ${Buffer.from('guest:guest').toString('base64')}`;
	if (request.headers.authorization === expected) {
		response.writeHead(200, { 'content-type': 'text/html' });
		response.end('<!doctype html><html lang="en"><title>Inside</title><h1>Inside</h1>');
	} else {
		response.writeHead(401, { 'content-type': 'text/html', 'www-authenticate': 'Basic realm="faults"' });
		response.end('<!doctype html><html lang="en"><title>401</title><h1>Who are you?</h1>');
	}
}
