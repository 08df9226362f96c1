/** The built web app: `npm start`. Says in words when it cannot start. */
import { createServer } from 'node:http';

const port = Number(process.env.PORT || 4170);
const host = process.env.HOST || '127.0.0.1';
process.env.PROTOCOL_HEADER ??= 'x-forwarded-proto';
// The API has a limit of its own and explains it; the adapter's would cut in before.
process.env.BODY_SIZE_LIMIT ??= '8M';

function end(words) {
	console.error(words);
	process.exit(1);
}

const server = createServer();
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
