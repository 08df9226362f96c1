import { expect } from 'chai';
import { createHash } from 'node:crypto';
import { FIRST_WINDOW_BYTES, Link, SEGMENT_BYTES } from '../../src/lab/shaper/link';
import { parseHostMap, parseHostTimes, ruleFor } from '$core/load/requests/hostMap';
import { ShapedProxy } from '../../src/lab/shaper/socks';
import { lateConnect } from '../support/farAway';
import { socks } from '../support/socksClient';
import { serve, rule, freePort, type RunningServer } from '../support/world';

async function fetchThrough(port: number, host: string, path: string): Promise<Buffer> {
	const { socket } = await socks(port, host, 80);
	socket.write(`GET ${path} HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`);
	const chunks: Buffer[] = [];
	for await (const chunk of socket) chunks.push(chunk as Buffer);
	const whole = Buffer.concat(chunks);
	return whole.subarray(whole.indexOf('\r\n\r\n') + 4);
}

describe('host map', () => {
	it('sends the first match elsewhere', () => {
		const rules = parseHostMap('shop.test=10.0.0.5:8080, *.test=127.0.0.1:4180/4143');
		expect(ruleFor('shop.test', rules)).to.include({ address: '10.0.0.5', port: 8080, tlsPort: null });
		expect(ruleFor('deep.down.test', rules)).to.include({ port: 4180, tlsPort: 4143 });
		expect(ruleFor('test', rules)).to.include({ port: 4180 });
		expect(ruleFor('elsewhere.example', rules)).to.equal(null);
		expect(parseHostMap(undefined)).to.deep.equal([]);
	});

	it('knows what a host costs beyond the line', () => {
		expect(parseHostTimes('*.far.test=30/80')).to.deep.equal([
			{ pattern: '*.far.test', dnsMs: 30, extraRoundTripMs: 80 }
		]);
		expect(() => parseHostTimes('far.test=30')).to.throw('far.test=30');
	});

	it('says which rule cannot be read', () => {
		for (const wrong of ['nonsense', 'a=b', 'a=b:99999', 'a=b:1/x'])
			expect(() => parseHostMap(`ok=h:1,${wrong}`)).to.throw(wrong);
	});
});

describe('link', () => {
	/** A link whose clock the test turns. */
	function turned(bytesPerMs: number, roundTripMs: number) {
		let now = 0;
		const link = new Link({ bytesPerMs }, () => now);
		const arrived: { at: number; bytes: number; flow: number }[] = [];
		const open = (flow: number) =>
			link.open(
				{
					onData: (chunk) => arrived.push({ at: now, bytes: chunk.length, flow }),
					onEnd: () => undefined,
					onDrain: () => undefined
				},
				{ roundTripMs, delayMs: roundTripMs / 2 }
			);
		const probe = open(-1);
		const turnTo = (ms: number) => {
			for (; now < ms; now += 1) probe.send(Buffer.alloc(0)) ?? probe.end();
		};
		return { link, open, arrived, turnTo };
	}

	it('delivers half a round trip after the last byte has left, and starts slowly', () => {
		const { open, arrived, turnTo, link } = turned(1000, 100);
		open(0).send(Buffer.alloc(60_000));
		turnTo(400);
		const until = (ms: number) => arrived.filter((item) => item.at <= ms).reduce((sum, item) => sum + item.bytes, 0);
		expect(until(49)).to.equal(0);
		expect(until(120), 'the first window').to.equal(FIRST_WINDOW_BYTES);
		expect(until(220), 'twice as much in the second round trip').to.equal(3 * FIRST_WINDOW_BYTES);
		expect(until(400)).to.equal(60_000);
		link.close();
	});

	it('lets small writes of one moment leave together: none waits for the answer to another', async () => {
		// By the host's own clock and timers: nothing else turns this link.
		const link = new Link({ bytesPerMs: 300 });
		let bytes = 0;
		const handlers = { onData: (chunk: Buffer) => void (bytes += chunk.length), onEnd: () => {}, onDrain: () => {} };
		const flow = link.open(handlers, { roundTripMs: 400, delayMs: 200 });
		// A TLS client's last word, its settings and its request (RFC 8446, section 2; RFC 9113, section 3.4).
		for (const size of [80, 92, 482]) flow.send(Buffer.alloc(size));
		// Due after 200 ms; what waited for an acknowledgement would come after 600.
		await new Promise((next) => setTimeout(next, 400));
		expect(bytes).to.equal(654);
		link.close();
	});

	it('keeps a flow to a farther host that much later', () => {
		const { link, arrived, turnTo } = turned(1000, 100);
		link
			.open(
				{
					onData: (chunk) => arrived.push({ at: 0, bytes: chunk.length, flow: 9 }),
					onEnd: () => undefined,
					onDrain: () => undefined
				},
				{ roundTripMs: 180, delayMs: 90 }
			)
			.send(Buffer.alloc(100));
		turnTo(88);
		expect(arrived).to.deep.equal([]);
		turnTo(93);
		expect(arrived.map((item) => item.bytes)).to.deep.equal([100]);
		link.close();
	});

	it('adds only what the real way lacks, and turns its window by the whole round trip', () => {
		const { link, arrived, turnTo } = turned(1000, 100);
		let bytes = 0;
		const handlers = { onData: (chunk: Buffer) => void (bytes += chunk.length), onEnd: () => {}, onDrain: () => {} };
		// 70 of 100 ms are real: 15 ms each way are missing.
		link.open(handlers, { roundTripMs: 100, delayMs: 15 }).send(Buffer.alloc(60_000));
		turnTo(13);
		expect(bytes).to.equal(0);
		turnTo(80);
		expect(bytes, 'the first window').to.equal(FIRST_WINDOW_BYTES);
		turnTo(180);
		expect(bytes, 'twice as much in the second round trip').to.equal(3 * FIRST_WINDOW_BYTES);
		expect(arrived).to.deep.equal([]);
		link.close();
	});

	it('shares its rate fairly', () => {
		const { open, arrived, turnTo, link } = turned(200, 10);
		for (let flow = 0; flow < 6; flow++) open(flow).send(Buffer.alloc(200_000));
		turnTo(1500);
		const got = [0, 1, 2, 3, 4, 5].map((flow) =>
			arrived.filter((item) => item.flow === flow).reduce((sum, item) => sum + item.bytes, 0)
		);
		expect(Math.max(...got) - Math.min(...got)).to.be.at.most(2 * SEGMENT_BYTES);
		expect(got.reduce((sum, bytes) => sum + bytes, 0)).to.be.within(200 * 1400, 200 * 1500);
		link.close();
	});
});

describe('shaped proxy', () => {
	const body = Buffer.from(Array.from({ length: 300_000 }, (_, i) => (i * 31) % 251));
	let server: RunningServer;
	let closed: number;
	let proxy: ShapedProxy;
	let port: number;
	before(async () => {
		server = await serve((_, response) => response.end(body));
		closed = await freePort();
		proxy = new ShapedProxy({
			roundTripMs: 10,
			downKbps: 80_000,
			upKbps: 20_000,
			dnsMs: 0,
			hostMap: [rule('good.test', server.port), rule('closed.test', closed)],
			hostTimes: []
		});
		port = await proxy.listen();
	});
	after(() => {
		proxy.close();
		server.close();
	});

	it('passes every byte in order, on many connections at once', async () => {
		const print = (bytes: Buffer) => createHash('sha1').update(bytes).digest('hex');
		const bodies = await Promise.all(Array.from({ length: 8 }, () => fetchThrough(port, 'good.test', '/')));
		expect(new Set(bodies.map(print))).to.deep.equal(new Set([print(body)]));
		expect(proxy.log.mostOpen).to.equal(8);
	});

	it('notes the real way to a host, the quickest of its connections, and lays what is missing on top', async function () {
		// Real time on a shared machine: a neighbour's burst is no fault of the line, and none lasts three tries.
		this.retries(3);
		// Connections of this proxy take 60 and 30 ms by themselves, where 100 are wanted.
		const ways = [60, 30];
		const far = new ShapedProxy(
			{
				roundTripMs: 100,
				downKbps: 80_000,
				upKbps: 20_000,
				dnsMs: 0,
				hostMap: [rule('good.test', server.port)],
				hostTimes: []
			},
			lateConnect(() => ways.shift() ?? 30)
		);
		const farPort = await far.listen();
		await fetchThrough(farPort, 'good.test', '/');
		await fetchThrough(farPort, 'good.test', '/');
		const [first, second] = far.log.connections;
		far.close();
		expect(first!.realMs).to.be.within(58, 80);
		expect(second!.realMs).to.be.within(28, 50);
		for (const { startedAt, connectedAt, wantedMs } of [first!, second!]) {
			expect(wantedMs).to.equal(100);
			// The handshake takes what was wanted, not that on top of the real way.
			expect(connectedAt! - startedAt).to.be.within(95, 150);
		}
	});

	it('refuses in the words of the log: unknown, closed, private, port not mapped', async () => {
		const codes: [host: string, hostPort: number, code: number, error: string][] = [
			['nowhere.invalid', 80, 4, 'unresolvable'],
			['closed.test', 80, 5, 'refused'],
			['good.test', 443, 5, 'refused'],
			['good.test', server.port, 5, 'refused'],
			['127.0.0.1', server.port, 2, 'private-address'],
			['10.1.2.3', 80, 2, 'private-address'],
			['localhost', 80, 2, 'private-address']
		];
		for (const [host, hostPort, code, error] of codes) {
			const answer = await socks(port, host, hostPort);
			answer.socket.destroy();
			expect(answer.code, host).to.equal(code);
			expect(proxy.log.connections.at(-1), host).to.include({ host, error });
		}
	});
});
