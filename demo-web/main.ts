/** Starts the simulated web alone: `npm run demo-web`. */
import { join, resolve } from 'node:path';
import { createDemoWeb } from './server';

const port = Number(process.env.ZAFRA_DEMO_PORT ?? 4180);
const folder = join(resolve(process.env.ZAFRA_DATA ?? 'data'), 'demo-web');
const { server } = createDemoWeb({ folder });

server.on('error', (error: NodeJS.ErrnoException) => {
	console.error(
		error.code === 'EADDRINUSE'
			? `Port ${port} is taken, so the simulated web cannot start. Stop what uses it, or choose another port with ZAFRA_DEMO_PORT.`
			: `The simulated web cannot start: ${error.message}`
	);
	process.exit(1);
});
server.listen(port, '127.0.0.1', () => {
	console.log(`The simulated web listens on 127.0.0.1:${port}.`);
	process.send?.('ready');
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
// Started by a parent over a channel, it ends with that parent.
process.on('disconnect', () => process.exit(0));
