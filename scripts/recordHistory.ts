/**
 * Records what the demonstration's histories are drawn from: real loads of the simulated web's pages at some states of
 * their sites, a few of each, by the real lab. A year of readings would take days; its spread is that of these loads.
 */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { brotliCompressSync, constants } from 'node:zlib';
import { hostTimes } from '../demo-web/hosts';
import type { SiteState } from '../demo-web/state/switches';
import { middleLoad } from '$core/compare/middleLoad';
import { BUILT_IN_CONDITIONS, WAY_OF_MEASURING } from '$core/load/conditions/conditions';
import type { MeasuredLoad } from '$core/load/record/record';
import { Lab } from '../src/lab/lab';
import { serve, startDemoWeb } from '../test/support/world';
import { CONTROL_HOST } from '$core/watch/control';

const LOADS = Number(process.env.RECORD_LOADS ?? 4);
const MOST_TRIES = 3;
const PATHS = ['/', '/timetable', '/booking'];

/** In the order in which they are recorded: each changes its site from what it was before. */
const STATES: { host: string; name: string; change: Partial<SiteState>; paths: string[] }[] = [
	{ host: 'skerry-line.test', name: 'plain', change: {}, paths: PATHS },
	{ host: 'skerry-line.test', name: 'chat', change: { chat: 'normal' }, paths: PATHS },
	{ host: 'skerry-line.test', name: 'larder', change: { larder: 'pages-and-files' }, paths: PATHS },
	{ host: 'skerry-line.test', name: 'decayed', change: { larder: 'pages' }, paths: PATHS },
	{ host: 'northsound-crossings.test', name: 'plain', change: {}, paths: PATHS },
	{
		host: 'northsound-crossings.test',
		name: 'faster',
		change: { larder: 'pages-and-files', shrinkery: 'size' },
		paths: PATHS
	},
	{ host: 'puffin-ferries.test', name: 'plain', change: {}, paths: PATHS }
];

const world = await startDemoWeb();
const control = await serve((request, response) => {
	const file = (request.url ?? '').replace(/^\/control\//, '');
	const types: Record<string, string> = {
		html: 'text/html',
		css: 'text/css',
		js: 'text/javascript',
		svg: 'image/svg+xml'
	};
	if (!/^[a-z]+\.[a-z]+$/.test(file)) return response.writeHead(404).end();
	response.setHeader('content-type', types[file.split('.')[1]!] ?? 'text/plain');
	response.end(readFileSync(`static/control/${file}`));
});
const lab = new Lab({
	hostMap: [{ pattern: CONTROL_HOST, address: '127.0.0.1', port: control.port, tlsPort: null }, ...world.rules],
	hostTimes: hostTimes(),
	trustedKeys: [world.keyHash]
});
const conditions = BUILT_IN_CONDITIONS.map((own) => ({ ...own, ...WAY_OF_MEASURING }));

interface Group {
	host: string;
	path: string;
	state: string;
	condition: string;
	loads: MeasuredLoad[];
}

async function measure(url: string, condition: (typeof conditions)[number]): Promise<MeasuredLoad> {
	for (let tries = 1; ; tries++) {
		const measured = await lab.measure({ url, conditions: condition, steps: [] });
		const { status, environment } = measured.record;
		if (status === 'failed' && tries >= MOST_TRIES) throw new Error(measured.record.failure!.message);
		if ((status === 'ok' && !environment.calm?.disturbed) || tries >= MOST_TRIES) return measured;
	}
}

const groups: Group[] = [];
const groupOf = (host: string, path: string, state: string, condition: string) => {
	const match = groups.find(
		(own) => own.host === host && own.path === path && own.state === state && own.condition === condition
	);
	if (match) return match;
	const group: Group = { host, path, state, condition, loads: [] };
	groups.push(group);
	return group;
};

for (const { host, name, change, paths } of STATES) {
	world.store.change(host, change, 'published');
	// A page cache is filled before anybody measures.
	for (const path of paths) for (const condition of conditions) await measure(`https://${host}${path}`, condition);
	for (let round = 1; round <= LOADS; round++) {
		for (const condition of conditions) {
			for (const path of paths)
				groupOf(host, path, name, condition.id).loads.push(await measure(`https://${host}${path}`, condition));
			if (round <= 3)
				groupOf('control', '/', 'plain', condition.id).loads.push(
					await measure(`http://${CONTROL_HOST}/control/index.html`, condition)
				);
		}
		console.log(`${new Date().toISOString()} ${host} ${name}: round ${round} of ${LOADS}`);
	}
}
await lab.close();

const lines = groups.map(({ loads, ...place }) => {
	const good = loads.filter(({ record }) => record.status === 'ok');
	const numbered = good.map(({ record }, id) => ({ id, figures: record.figures }));
	const middle = good[middleLoad(numbered)!.id]!;
	const { frames, picture, record } = middle;
	return JSON.stringify({
		...place,
		figures: good.map((load) => load.record.figures),
		record,
		frames: frames.map((frame) => Buffer.from(frame).toString('base64')),
		picture: picture && Buffer.from(picture).toString('base64')
	});
});
mkdirSync('demo/history', { recursive: true });
const packed = brotliCompressSync(lines.join('\n'), {
	params: { [constants.BROTLI_PARAM_QUALITY]: 9, [constants.BROTLI_PARAM_LGWIN]: 24 }
});
writeFileSync('demo/history/loads.ndjson.br', packed);
console.log(`${groups.length} groups, ${packed.length} bytes`);
world.close();
control.close();
process.exit(0);
