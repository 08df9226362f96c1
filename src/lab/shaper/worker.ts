/** The shaper's own thread, so that the lab's work on events never delays a packet. */
import { parentPort } from 'node:worker_threads';
import { ShapedProxy, type ShapeLog, type ShapeOptions } from './socks';

export type ShaperRequest =
	{ id: number; open: ShapeOptions } | { id: number; renew: true } | { id: number; close: true };
export type ShaperReply = { id: number; port?: number; log?: ShapeLog; error?: string };

const proxies = new Map<number, ShapedProxy>();

parentPort?.on('message', (request: ShaperRequest) => {
	const reply = (answer: Omit<ShaperReply, 'id'>) => parentPort!.postMessage({ id: request.id, ...answer });
	if ('open' in request) {
		const proxy = new ShapedProxy(request.open);
		proxies.set(request.id, proxy);
		proxy.listen().then(
			(port) => reply({ port }),
			(error: Error) => reply({ error: error.message })
		);
		return;
	}
	const proxy = proxies.get(request.id);
	if ('renew' in request) {
		proxy?.renew();
		return reply({});
	}
	proxies.delete(request.id);
	proxy?.close();
	reply({ log: proxy?.log ?? { connections: [], mostOpen: 0 } });
});
