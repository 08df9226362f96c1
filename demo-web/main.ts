/** Starts the simulated web alone: `npm run demo-web`. */
import { join, resolve } from 'node:path';
import type { Server } from 'node:net';
import { weeksOfFolder } from './calendar';
import { hostTimes } from './hosts';
import { createDemoWeb } from './server';
import { startResolver } from './special/resolver';
import { writeHistory } from './visitors/history';

const port = Number(process.env.ZAFRA_DEMO_PORT ?? 4180);
const tlsPort = Number(process.env.ZAFRA_DEMO_TLS_PORT ?? port + 1);
const wrongPort = Number(process.env.ZAFRA_DEMO_WRONG_PORT ?? port + 2);
const folder = join(resolve(process.env.ZAFRA_DATA ?? 'data'), 'demo-web');
const zafra = `http://127.0.0.1:${process.env.PORT ?? 4170}`;
const weeks = weeksOfFolder(folder);
const world = await createDemoWeb({ folder, keepState: true, zafra, weeks });
const { http, https, wrongCertificate, certificates, drawPictures } = world;
// Put away for Zafra, which reads it once.
if (process.env.ZAFRA_DEMO_VISITS) writeHistory(process.env.ZAFRA_DEMO_VISITS, weeks);
// Drawn before the first visitor comes: a picture made on demand would look like a slow server.
await drawPictures();

function listen(server: Server, on: number): Promise<void> {
	return new Promise((ready) => {
		server.on('error', (error: NodeJS.ErrnoException) => {
			console.error(
				error.code === 'EADDRINUSE'
					? `Port ${on} is taken, so the simulated web cannot start. Stop what uses it, or choose another port with ZAFRA_DEMO_PORT.`
					: `The simulated web cannot start: ${error.message}`
			);
			process.exit(1);
		});
		server.listen(on, '127.0.0.1', ready);
	});
}

await listen(http, port);
await listen(https, tlsPort);
await listen(wrongCertificate, wrongPort);
const resolver = await startResolver(port + 3);
console.log(
	`The simulated web listens on 127.0.0.1, ports ${port} (HTTP), ${tlsPort} (HTTPS) and ${wrongPort} (wrong certificate).`
);
console.log(`Public key of its certificate: ${certificates.keyHash}`);
process.send?.({
	keyHash: certificates.keyHash,
	tlsPort,
	resolverPort: resolver.port,
	hostTimes: hostTimes()
		.map(({ pattern, dnsMs, extraRoundTripMs }) => `${pattern}=${dnsMs}/${extraRoundTripMs}`)
		.join(',')
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
// Started by a parent over a channel, it ends with that parent.
process.on('disconnect', () => process.exit(0));
