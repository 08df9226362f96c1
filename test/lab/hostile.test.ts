import { expect } from 'chai';
import { createSocket } from 'node:dgram';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { COLLECTING_MS, longestLoadMs } from '$core/load/record/limits';
import type { LoadRecord } from '$core/load/record/record';
import { Lab } from '../../src/lab/lab';
import { sampleOf } from '../support/sample';
import { HOSTILE, hostileServer } from '../support/hostile';
import { listen, rule, serve, type RunningServer, UNWATCHED } from '../support/world';
import { createServer } from 'node:http';

const [, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const QUICK: Conditions = {
	...DESKTOP,
	capMs: 3000,
	quietMs: 300,
	network: { ...DESKTOP.network, roundTripMs: 4, downKbps: 200_000 }
};

const PATIENT_MS = 15_000;

describe('hostile pages', function () {
	this.timeout(60_000);
	const reached: string[] = [];
	let site: RunningServer;
	let listener: RunningServer;
	let lab: Lab;
	let clean: LoadRecord;
	const udp = createSocket('udp4');

	before(async () => {
		listener = await listen(
			createServer((request, response) => {
				reached.push(`${request.method} ${request.url}`);
				response.writeHead(200, { 'access-control-allow-origin': '*' }).end('reached');
			}).on('connection', () => reached.push('a connection'))
		);
		await new Promise<void>((ready) => udp.bind(0, '127.0.0.1', ready));
		udp.on('message', (message) => reached.push(`UDP ${message.length}`));
		const fill = (html: string) =>
			html.replaceAll('{port}', String(listener.port)).replaceAll('{udp}', String(udp.address().port));
		site = await serve(hostileServer(fill));
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('hostile.test', site.port)], answerWithinMs: 4000 });
		clean = (await lab.measure({ url: 'http://hostile.test/clean', conditions: QUICK, steps: [] })).record;
		expect(clean.status, clean.failure?.message).to.equal('ok');
		expect(clean.figures.cls).to.be.above(0);
	});
	after(async () => {
		await lab.close();
		site.close();
		listener.close();
		udp.close();
	});

	/** As the queue does: a load whose browser paints nothing any more is made again in a new one. */
	async function loadAfter(): Promise<LoadRecord> {
		const clean = () => lab.measure({ url: 'http://hostile.test/clean', conditions: QUICK, steps: [] });
		const { record } = await clean();
		return record.failure?.code === 'browser-blind' ? (await clean()).record : record;
	}

	for (const [number, page] of sampleOf([...HOSTILE.entries()], 10))
		it(`${page.name}: ends in a load, reaches nobody, and leaves nothing behind`, async () => {
			reached.length = 0;
			// What cannot end in time need not be waited for; what must end well has time beside a busy neighbour too.
			const mayEnd = page.ends.includes('ok');
			const capMs = !mayEnd ? 2000 : page.ends.length === 1 ? PATIENT_MS : QUICK.capMs;
			const conditions = { ...QUICK, capMs, input: page.input ?? QUICK.input };
			const began = performance.now();
			const { record } = await lab.measure({
				url: `http://hostile.test/hostile?${number}`,
				conditions,
				steps: page.steps ?? []
			});
			const took = performance.now() - began;
			expect(page.ends, record.failure?.message).to.include(record.failure?.code ?? 'ok');
			// Closing a stuck tab, and giving up the browser, come on top.
			expect(took).to.be.below(longestLoadMs({ conditions, steps: page.steps ?? [] }) + 8000);
			if (!page.steps && !page.input) expect(took).to.be.below(capMs + COLLECTING_MS + 3000);
			expect(reached).to.deep.equal([]);
			const next = await loadAfter();
			expect(next.failure?.message).to.equal(undefined);
			expect(next.figures.fcp, 'first paint').to.be.a('number');
			expect(next.figures.lcp, 'largest paint').to.be.a('number');
			expect(next.frames.length, 'frames').to.be.above(0);
			const figuresOf = ({ figures }: LoadRecord) => ({
				requests: figures.requests,
				wire: figures.wire,
				cls: figures.cls!.toFixed(4)
			});
			expect(figuresOf(next)).to.deep.equal(figuresOf(clean));
			expect(reached).to.deep.equal([]);
		});

	it('a step that may not be opened fails in words and shows nothing', async () => {
		for (const open of ['file:///etc/passwd', 'chrome://version', 'view-source:http://hostile.test/clean']) {
			const { record } = await lab.measure({ url: 'http://hostile.test/clean', conditions: QUICK, steps: [{ open }] });
			expect(record.steps[0]).to.include({ status: 'failed' });
			expect(record.steps[0]!.message).to.include('only http and https');
			expect(record.finalUrl).to.equal('http://hostile.test/clean');
		}
	});

	it('what was collected before the end stays in the record', async () => {
		const number = HOSTILE.findIndex((page) => page.name.includes('endless click handler'));
		const { record, frames } = await lab.measure({
			url: `http://hostile.test/hostile?${number}`,
			conditions: QUICK,
			steps: [{ click: 'button' }]
		});
		expect(record.failure?.code).to.equal('time-out');
		expect(record.requests.map((request) => new URL(request.url).pathname)).to.deep.equal(['/hostile']);
		expect(record.figures.fcp).to.be.a('number');
		expect(record.steps).to.have.length(1);
		expect(record.steps[0]).to.include({ kind: 'click', status: 'failed' });
		expect(frames.length).to.be.above(0);
	});
});
