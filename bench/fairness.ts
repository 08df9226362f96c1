/** Whether parallel connections share the line evenly: equal bodies over 6 and 30 connections, plain and with TLS. */
import { createServer as createTls } from 'node:https';
import type { RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { certificatesFor } from '../demo-web/tls/certificates';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { median } from '$core/stats/summary';
import { Lab } from '../src/lab/lab';
import { serve } from '../test/support/world';
import { percent, printTable, type Row } from './table';
import { theoryTransfer } from './theory';

const HOSTS = Array.from({ length: 30 }, (_, i) => `h${i}.test`);
const RTT = 40;
/** 9 MB in all, whatever the number of connections. */
const TOGETHER = 9_000_000;
const KBPS = 40_000;
const desktop = BUILT_IN_CONDITIONS[1]!;
const conditions = { ...desktop, quietMs: 300, network: { ...desktop.network, roundTripMs: RTT, downKbps: KBPS } };
const answer: RequestListener = (request, response) => {
	const url = new URL(request.url ?? '/', 'http://x');
	const bytes = Number(url.searchParams.get('bytes'));
	if (bytes)
		return void response
			.writeHead(200, { 'content-type': 'text/plain', 'access-control-allow-origin': '*' })
			.end(Buffer.alloc(bytes, 97));
	const count = Number(url.searchParams.get('n'));
	const scheme = url.searchParams.get('s');
	// One new connection each: a host apiece, none of them the page's own.
	response.writeHead(200, { 'content-type': 'text/html' }).end(`<!doctype html><title>x</title><script>
		for (const host of ${JSON.stringify(HOSTS)}.slice(0, ${count})) fetch('${scheme}://' + host + '/?bytes=${TOGETHER / count}').then((r) => r.arrayBuffer());</script>`);
};
const plain = await serve(answer);
const certificates = await certificatesFor(join(tmpdir(), 'zafra-bench-fairness'), [...HOSTS, 'page.test']);
const tls = createTls({ key: certificates.key, cert: certificates.certificate }, answer);
await new Promise<void>((ready) => tls.listen(0, '127.0.0.1', ready));
const tlsPort = (tls.address() as AddressInfo).port;
const lab = new Lab({
	hostMap: [{ pattern: '*.test', address: '127.0.0.1', port: plain.port, tlsPort }],
	trustedKeys: [certificates.keyHash]
});
const rows: Row[] = [];
for (const scheme of ['http', 'https'])
	for (const count of [6, 30]) {
		const unevenness: number[] = [];
		const off: number[] = [];
		const theory = theoryTransfer(TOGETHER, RTT, KBPS, count);
		for (let i = 0; i < 5; i++) {
			const { record } = await lab.measure({
				url: `${scheme}://page.test/?n=${count}&s=${scheme}`,
				conditions,
				steps: []
			});
			const bodies = record.requests.filter((request) => request.url.includes('bytes=') && request.endMs !== null);
			if (bodies.length !== count)
				throw new Error(`${bodies.length} of ${count} bodies came: ${record.failure?.message ?? ''}`);
			const rates = bodies.map((body) => 1 / (body.endMs! - body.responseMs!));
			const middle = median(rates);
			unevenness.push(Math.max(...rates.map((rate) => Math.abs(rate / middle - 1))));
			off.push(
				(Math.max(...bodies.map((body) => body.endMs!)) - Math.min(...bodies.map((body) => body.responseMs!))) /
					theory -
					1
			);
		}
		rows.push({
			what: `${count} connections, ${scheme}: furthest rate from the middle one`,
			measured: percent(median(unevenness)),
			limit: 'within 10 %',
			holds: median(unevenness) <= 0.1
		});
		rows.push({
			what: `${count} connections, ${scheme}: all together against theory (${theory.toFixed(0)} ms)`,
			measured: percent(median(off)),
			limit: 'within 3 %',
			holds: Math.abs(median(off)) <= 0.03
		});
	}
await lab.close();
plain.close();
tls.close();
printTable('Shaper: parallel connections on one line', rows);
