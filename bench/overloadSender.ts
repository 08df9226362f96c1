/** Readers and beacons for `overload`: an open loop in its own process, which tells what it took of a processor. */
import { Agent, request } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { aBeacon, aVisit } from '../test/support/visits';

export interface SenderPlan {
	url: string;
	key: string;
	token: string;
	seconds: number;
	pagesASecond: number;
	beaconsASecond: number;
	pages: string[];
}

export interface SenderResult {
	pages: Answers;
	beacons: Answers;
	/** Share of one processor that this process used. */
	cpu: number;
}

export interface Answers {
	/** Of those that were served, ms. */
	latencies: number[];
	/** Turned away with 503 and a Retry-After, ms. */
	turnedAway: number[];
	/** Other statuses. */
	failed: number;
	/** No answer within 30 s, or a broken connection. */
	unanswered: number;
}

const UNANSWERED_AFTER_MS = 30_000;
const ADDRESSES = 200;
const AGENT = 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/156.0.0.0 Mobile Safari/537.36';
const agent = new Agent({ keepAlive: true, maxSockets: 2000 });
const noAnswers = (): Answers => ({ latencies: [], turnedAway: [], failed: 0, unanswered: 0 });

function ask(url: string, headers: Record<string, string>, body: string | null, into: Answers): Promise<void> {
	const began = performance.now();
	return new Promise((resolve) => {
		const sent = request(url, { agent, method: body === null ? 'GET' : 'POST', headers, timeout: UNANSWERED_AFTER_MS });
		const lost = () => {
			into.unanswered++;
			resolve();
		};
		sent.on('response', (response) => {
			response.resume();
			response.on('error', lost);
			response.on('end', () => {
				const took = performance.now() - began;
				const { statusCode = 0, headers: own } = response;
				if (statusCode === 503 && own['retry-after']) into.turnedAway.push(took);
				else if (statusCode >= 400) into.failed++;
				else into.latencies.push(took);
				resolve();
			});
		});
		sent.on('timeout', () => sent.destroy(new Error('no answer')));
		sent.on('error', lost);
		sent.end(body ?? undefined);
	});
}

async function openLoop(aSecond: number, seconds: number, send: (i: number) => Promise<void>): Promise<void> {
	const open: Promise<void>[] = [];
	const began = performance.now();
	for (let i = 0; i < aSecond * seconds; i++) {
		const due = began + (i * 1000) / aSecond;
		if (due > performance.now()) await pause(due - performance.now());
		open.push(send(i));
	}
	await Promise.all(open);
}

async function run({ url, key, token, seconds, pages, ...rates }: SenderPlan): Promise<SenderResult> {
	let found = { pages: noAnswers(), beacons: noAnswers() };
	const read = (i: number) =>
		ask(url + pages[i % pages.length]!, { accept: 'text/html', 'accept-encoding': 'gzip' }, null, found.pages);
	const beacon = (i: number) => {
		const visit = aVisit({ id: `o-${process.pid}-${String(i).padStart(8, '0')}`, path: `/page-${i % 50}` });
		const headers = {
			origin: 'https://skerry-line.test',
			'user-agent': AGENT,
			'content-type': 'text/plain',
			'x-forwarded-for': `198.51.100.${1 + (i % ADDRESSES)}`
		};
		return ask(`${url}/visit`, headers, JSON.stringify(aBeacon([visit], { key, token })), found.beacons);
	};
	// This process has its code to compile and its connections to open: that is none of what is measured.
	await Promise.all([openLoop(rates.pagesASecond / 4, 4, read), openLoop(rates.beaconsASecond / 2, 4, beacon)]);
	found = { pages: noAnswers(), beacons: noAnswers() };
	const before = process.cpuUsage();
	const began = performance.now();
	await Promise.all([
		openLoop(rates.pagesASecond, seconds, read),
		openLoop(rates.beaconsASecond, seconds, (i) => beacon(i + 1_000_000))
	]);
	const { user, system } = process.cpuUsage(before);
	return { ...found, cpu: (user + system) / 1000 / (performance.now() - began) };
}

process.once('message', async (plan: SenderPlan) => {
	process.send!(await run(plan), () => process.exit(0));
});
