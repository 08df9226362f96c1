/** The built web app: `npm start`. Says in words when it cannot start. */
import { createServer } from 'node:http';

const port = Number(process.env.PORT || 4170);
const host = process.env.HOST || '127.0.0.1';
process.env.PROTOCOL_HEADER ??= 'x-forwarded-proto';
// The API has a limit of its own and explains it; the adapter's would cut in before.
process.env.BODY_SIZE_LIMIT ??= '64M';

function end(words) {
	console.error(words);
	process.exit(1);
}

const server = createServer();
/** Whoever asks while the app is still starting is told so, and not left waiting. */
const early = (_request, response) => response.writeHead(503, { 'retry-after': '1', 'content-type': 'text/plain' }).end('Zafra is starting. Try again in a second.');
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
		server.on('request', (request, response) => {
			request.headers['x-forwarded-proto'] ??= 'http';
			handler(request, response);
		});
		console.log(`Zafra is at http://${host}:${port}/`);
		process.send?.('ready');
	} catch (error) {
		end(`Zafra cannot start: ${error.message}`);
	}
});

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(0));
process.on('disconnect', () => process.exit(0));
