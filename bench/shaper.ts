/** The shaped network against theory: first byte and transfer time, in the real browser behind the real proxy. */
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { median } from '$core/stats/summary';
import type { AddressInfo } from 'node:net';
import { Lab } from '../src/lab/lab';
import { ShapedProxy } from '../src/lab/shaper/socks';
import { farRelay, lateConnect } from '../test/support/farAway';
import { firstByteThrough } from '../test/support/socksClient';
import { rule, serve } from '../test/support/world';
import { percent, printTable, type Row } from './table';
import { theoryTransfer } from './theory';

const SERVER_MS = 120;
const HEADER_BYTES = 250;
const [, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const conditions = (roundTripMs: number, downKbps: number): Conditions => ({
	...DESKTOP,
	quietMs: 300,
	network: { roundTripMs, downKbps, upKbps: 10_000, dnsMs: 0 }
});

/** What the server really took from request to answer: its timer is a ms or so late. */
const served: number[] = [];
/** The handshake, the request's way there, the server, the answer's way back. */
const theoryFirstByte = (roundTripMs: number) => 2 * roundTripMs + median(served);

const server = await serve((request, response) => {
	const url = new URL(request.url ?? '/', 'http://x');
	const bytes = Number(url.searchParams.get('bytes') ?? 0);
	if (url.pathname === '/body')
		return void response.writeHead(200, { 'content-type': 'text/plain' }).end(Buffer.alloc(bytes, 97));
	const came = performance.now();
	setTimeout(() => {
		served.push(performance.now() - came);
		response
			.writeHead(200, { 'content-type': 'text/html' })
			.end(
				bytes
					? `<!doctype html><title>x</title><script>fetch('/body?bytes=${bytes}', {cache:'no-store'}).then((r) => r.arrayBuffer())</script>`
					: '<!doctype html><title>x</title><p>x'
			);
	}, SERVER_MS);
});
const lab = new Lab({ hostMap: [rule('*.test', server.port)] });
const rows: Row[] = [];
// The browser's own first loads are slow.
for (let i = 0; i < 5; i++)
	await lab.measure({ url: 'http://page.test/', conditions: conditions(20, 20_000), steps: [] });
served.length = 0;
const repeats = Number(process.env.BENCH_REPEATS ?? 15);

// In rounds, so that a burst of other work on the machine falls on all round-trip times alike.
const ROUND_TRIPS = [20, 60, 120, 200];
const firstBytes = new Map(ROUND_TRIPS.map((roundTripMs) => [roundTripMs, [] as number[]]));
for (let i = 0; i < repeats; i++)
	for (const roundTripMs of ROUND_TRIPS)
		firstBytes
			.get(roundTripMs)!
			.push(
				(await lab.measure({ url: 'http://page.test/', conditions: conditions(roundTripMs, 20_000), steps: [] })).record
					.figures.ttfb!
			);
for (const [roundTripMs, times] of firstBytes) {
	const theory = theoryFirstByte(roundTripMs);
	const off = median(times) - theory;
	rows.push({
		what: `first byte, ${roundTripMs} ms round trip`,
		measured: `${median(times).toFixed(1)} ms, theory ${theory.toFixed(1)}`,
		limit: 'within 5 ms',
		holds: Math.abs(off) <= 5
	});
}
for (const downKbps of [3000, 9000, 40_000])
	for (const bytes of [50_000, 200_000, 1_000_000, 2_000_000]) {
		const times: number[] = [];
		for (let i = 0; i < Math.max(3, repeats >> 1); i++) {
			const { record } = await lab.measure({
				url: `http://page.test/?bytes=${bytes}`,
				conditions: conditions(60, downKbps),
				steps: []
			});
			const body = record.requests.find((request) => request.url.includes('/body'))!;
			times.push(body.endMs! - body.responseMs!);
		}
		const theory = theoryTransfer(bytes + HEADER_BYTES, 60, downKbps);
		const off = median(times) / theory - 1;
		rows.push({
			what: `${bytes / 1000} kB at ${downKbps / 1000} Mbit/s, 60 ms`,
			measured: `${median(times).toFixed(0)} ms, theory ${theory.toFixed(0)} (${percent(off)})`,
			limit: 'within 3 %',
			holds: Math.abs(off) <= 0.03
		});
	}
// Hosts that lie 50 ms away for real, where 120 are wanted, and 200 away, where no shaping can help.
for (const [realMs, wantedMs] of [
	[50, 120],
	[200, 120]
] as const) {
	const far = await farRelay(server.port, realMs);
	const { port } = far.address() as AddressInfo;
	const proxy = new ShapedProxy(
		{
			roundTripMs: wantedMs,
			downKbps: 20_000,
			upKbps: 10_000,
			dnsMs: 0,
			hostMap: [rule('page.test', port)],
			hostTimes: []
		},
		lateConnect(() => realMs)
	);
	const proxyPort = await proxy.listen();
	served.length = 0;
	const times: number[] = [];
	for (let i = 0; i < repeats; i++) times.push(await firstByteThrough(proxyPort, 'page.test'));
	proxy.close();
	far.close();
	const theory = theoryFirstByte(Math.max(realMs, wantedMs));
	rows.push({
		what: `first byte, really ${realMs} ms away, ${wantedMs} ms wanted`,
		measured: `${median(times).toFixed(1)} ms, theory ${theory.toFixed(1)}`,
		limit: 'within 5 ms',
		holds: Math.abs(median(times) - theory) <= 5
	});
}
await lab.close();
server.close();
printTable('Shaper: medians against theory', rows);
