/** The built web app: `npm start`. Says in words when it cannot start. */
import { createServer } from 'node:http';
import compression from 'compression';
import { createAdmission, turnOf } from './admission.mjs';
import {
	allowedHosts,
	isOpenToOthers,
	isVisit,
	OPEN_WORDS,
	ownHost,
	parseProxies,
	refusal,
	SENDER_HEADER,
	straighten
} from './door.mjs';

const port = Number(process.env.PORT || 4170);
const host = process.env.HOST || '127.0.0.1';
process.env.PROTOCOL_HEADER = 'x-forwarded-proto';
process.env.ADDRESS_HEADER = SENDER_HEADER;
// The API has a limit of its own and explains it; the adapter's would cut in before.
process.env.BODY_SIZE_LIMIT ??= '64M';

function end(words) {
	console.error(words);
	process.exit(1);
}

if (isOpenToOthers(host)) {
	if (process.env.ZAFRA_OPEN !== 'yes')
		end(
			`Zafra does not listen on ${host}. ${OPEN_WORDS} Set ZAFRA_OPEN=yes if that is meant, or leave HOST at 127.0.0.1 and put a proxy with a log-in in front (docs/security.md).`
		);
	console.warn(`Zafra is open to others on ${host}. ${OPEN_WORDS}`);
}

const place = {};
try {
	place.allowed = allowedHosts(host, port, process.env.ZAFRA_ORIGINS);
	place.own = ownHost(port, process.env.ZAFRA_ORIGINS);
	place.proxies = parseProxies(process.env.ZAFRA_PROXIES);
} catch (error) {
	end(error.message);
}

/** Text goes out compressed; what is sent while it happens is not held back for that. */
const compress = compression({
	filter: (request, response) =>
		!/^text\/event-stream/.test(String(response.getHeader('content-type'))) && compression.filter(request, response)
});

/** Turn away what may not speak to Zafra; everything else goes on to the listener. */
function guarded(listener) {
	return (request, response) => {
		const no = refusal(request, place.allowed);
		if (!no) return listener(request, response);
		const isApi = request.url?.startsWith('/api/');
		const body = isApi ? JSON.stringify({ error: { message: no.words, issues: [] } }) : no.words;
		response
			.writeHead(no.status, {
				'content-type': isApi ? 'application/json' : 'text/plain; charset=utf-8',
				connection: 'close'
			})
			.end(body);
	};
}

const server = createServer();
/** Whoever asks while the app is still starting is told so, and not left waiting. */
const early = guarded((_request, response) =>
	response
		.writeHead(503, { 'retry-after': '1', 'content-type': 'text/plain' })
		.end('Zafra is starting. Try again in a second.')
);
server.on('request', early);
server.on('error', (error) =>
	end(
		error.code === 'EADDRINUSE'
			? `Port ${port} is taken, so Zafra cannot start. Stop what uses it, or choose another port with PORT.`
			: `Zafra cannot listen on ${host}:${port}: ${error.message}`
	)
);
server.listen(port, host, async () => {
	try {
		// Only now: the app starts its lab, which it should not when the port is taken.
		const { handler } = await import('../build/handler.js');
		server.off('request', early);
		const admission = createAdmission();
		server.on('connection', () => admission.connected());
		const app = guarded((request, response) => {
			straighten(request, place);
			// Browsers send beacons as plain text, so that no preflight is needed; the framework takes that for a form.
			const visit = isVisit(request.url);
			if (visit && request.method === 'POST') request.headers['content-type'] = 'application/json';
			const turn = turnOf(request, visit);
			const answer = () => compress(request, response, () => handler(request, response));
			if (turn === 'none') answer();
			else admission[turn](response, answer);
		});
		server.on('request', app);
		console.log(`Zafra is at http://${host}:${port}/`);
		process.send?.('ready');
	} catch (error) {
		end(`Zafra cannot start: ${error.message}`);
	}
});

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(0));
process.on('disconnect', () => process.exit(0));
