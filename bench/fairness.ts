/** Whether parallel connections share the line evenly: equal bodies over 6 and 30 connections, plain and with TLS. */
import { createServer as createTls } from 'node:https';
import type { RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { certificatesFor } from '../demo-web/tls/certificates';
import { BUILT_IN_CONDITIONS } from '../src/core/load/conditions';
import { median } from '../src/core/stats/summary';
import { Lab } from '../src/lab/lab';
import { serve } from '../test/support/world';
import { percent, printTable, type Row } from './table';

const HOSTS = Array.from({ length: 30 }, (_, i) => `h${i}.test`);
const BYTES = 300_000;
const KBPS = 40_000;
const desktop = BUILT_IN_CONDITIONS[1]!;
const conditions = { ...desktop, quietMs: 300, network: { ...desktop.network, roundTripMs: 40, downKbps: KBPS } };
const answer: RequestListener = (request, response) => {
	const url = new URL(request.url ?? '/', 'http://x');
	if (url.pathname === '/body') return void response.writeHead(200, { 'content-type': 'text/plain', 'access-control-allow-origin': '*' }).end(Buffer.alloc(BYTES, 97));
	const count = Number(url.searchParams.get('n'));
	const scheme = url.searchParams.get('s');
	// Connections are opened first, so that the bodies start together.
	response.writeHead(200, { 'content-type': 'text/html' }).end(`<!doctype html><title>x</title><script>
		const hosts = ${JSON.stringify(HOSTS)}.slice(0, ${count});
		Promise.all(hosts.map((host) => fetch('${scheme}://' + host + '/warm', { mode: 'no-cors' }))).then(() => hosts.forEach((host) => fetch('${scheme}://' + host + '/body').then((r) => r.arrayBuffer())));</script>`);
};
const plain = await serve(answer);
const certificates = await certificatesFor(join(tmpdir(), 'zafra-bench-fairness'), HOSTS);
const tls = createTls({ key: certificates.key, cert: certificates.certificate }, answer);
await new Promise<void>((ready) => tls.listen(0, '127.0.0.1', ready));
const tlsPort = (tls.address() as AddressInfo).port;
const lab = new Lab({ hostMap: [{ pattern: '*.test', address: '127.0.0.1', port: plain.port, tlsPort }], trustedKeys: [certificates.keyHash] });
const rows: Row[] = [];
for (const scheme of ['http', 'https'])
	for (const count of [6, 30]) {
		const unevenness: number[] = [];
		const rates: number[] = [];
		for (let i = 0; i < 5; i++) {
			const { record } = await lab.measure(`${scheme}://h0.test/?n=${count}&s=${scheme}`, conditions);
			const bodies = record.requests.filter((one) => one.url.endsWith('/body') && one.endMs !== null);
			if (bodies.length !== count) throw new Error(`${bodies.length} of ${count} bodies came: ${record.failure?.message ?? ''}`);
			const times = bodies.map((one) => one.endMs! - one.startMs);
			unevenness.push((Math.max(...times) - Math.min(...times)) / median(times));
			const from = Math.min(...bodies.map((one) => one.responseMs!));
			rates.push((count * BYTES * 8) / (Math.max(...bodies.map((one) => one.endMs!)) - from));
		}
		rows.push({ what: `${count} connections, ${scheme}: slowest against quickest body`, measured: percent(median(unevenness)), limit: 'within 10 %', holds: median(unevenness) <= 0.1 });
		rows.push({ what: `${count} connections, ${scheme}: rate of all together`, measured: `${(median(rates) / 1000).toFixed(1)} Mbit/s of ${KBPS / 1000}`, limit: 'within 5 %', holds: Math.abs(median(rates) / KBPS - 1) <= 0.05 });
	}
await lab.close();
plain.close();
tls.close();
printTable('Shaper: parallel connections on one line', rows);
