/** Rules over a large record, and a worklist of 5,000 lines. */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { RULE_IDS } from '$core/findings/finding';
import type { Cause } from '$core/findings/causes';
import { findingsOf } from '$core/findings/findings';
import { emptyPage } from '$core/load/record/emptyRecord';
import type { LoadRecord, RequestRecord } from '$core/load/record/record';
import { median } from '$core/stats/summary';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { createClient } from '../src/lib/server/rooms/clients/commands';
import { insertFinding } from '../src/lib/server/rooms/audits/queries/findings';
import { importedAudit } from '../src/lib/server/rooms/audits/queries/audits';
import { worklistView } from '../src/lib/server/rooms/audits/worklistView';
import { pictureFacts } from '../src/lab/files/picture';
import { minified, packed } from '../src/lab/files/text';
import { newClient } from '$core/clients/client';
import { recordOf, requestOf } from '../test/support/records';
import { printTable } from './table';

const REQUESTS = 500;
const LINES = 5000;
const RUNS = 21;

const TYPES = ['script', 'stylesheet', 'image', 'font', 'fetch'] as const;
const requests = Array.from({ length: REQUESTS }, (_, i): RequestRecord =>
	requestOf({
		type: i === 0 ? 'document' : TYPES[i % TYPES.length]!,
		url: `https://${i % 7 ? 'own.test' : `party${i % 35}.example`}/${i}.js`,
		startMs: i * 10,
		endMs: i * 10 + 400,
		wireBytes: 20_000 + i * 37,
		decodedBytes: 80_000,
		unused: 50_000,
		body: { hash: String(i % 400), bytes: 80_000, gzipBytes: 20_000 },
		mimeType: 'text/javascript'
	})
);
const record: LoadRecord = recordOf({
	requests,
	figures: { fcp: 1200, lcp: 2500, ttfb: 400 },
	lcp: { atMs: 2500, size: 1, selector: 'img', tag: 'img', url: requests[2]!.url, box: null, text: null },
	page: {
		...emptyPage('Large'),
		images: requests
			.filter(({ type }) => type === 'image')
			.map(({ url }) => ({
				url,
				selector: 'img',
				naturalWidth: 2000,
				naturalHeight: 1000,
				shownWidth: 300,
				shownHeight: 150,
				lazy: false,
				roomReserved: false,
				inView: false
			}))
	},
	longTasks: Array.from({ length: 60 }, (_, i) => ({ startMs: 1000 + i * 90, durationMs: 80 })),
	longFrames: Array.from({ length: 60 }, (_, i) => ({
		startMs: 1000 + i * 90,
		durationMs: 80,
		blockingMs: 30,
		scripts: [
			{
				url: requests[5 * (i % 40)]!.url,
				invoker: 'timer',
				functionName: 'run',
				startMs: 1000 + i * 90,
				durationMs: 70,
				layoutMs: 10
			}
		]
	})),
	shifts: Array.from({ length: 40 }, (_, i) => ({
		atMs: 700 + i * 100,
		value: 0.01,
		recentInput: false,
		elements: [
			{
				selector: `p:nth-child(${i})`,
				from: { x: 0, y: 0, width: 1, height: 1 },
				to: { x: 0, y: 9, width: 1, height: 1 }
			}
		]
	}))
});

function timed(work: () => unknown): number {
	const times = Array.from({ length: RUNS }, () => {
		const begun = performance.now();
		work();
		return performance.now() - begun;
	});
	return median(times.slice(1));
}

const folder = mkdtempSync(join(tmpdir(), 'zafra-bench-'));
const db = openDatabase(folder);
const clientId = createClient(db, newClient('Bench'));
const auditId = importedAudit(db, { clientId, againOf: null, design: { pages: [], conditions: [], loads: 3 } });
const [example] = findingsOf(record).findings;
db.transaction(() => {
	for (let i = 0; i < LINES; i++) {
		const key = `own.test/${i}.js`;
		const cause: Cause & { pageIds: number[] } = {
			rule: RULE_IDS[i % RULE_IDS.length]!,
			resource: { kind: 'address', name: `https://${key}`, key },
			pages: { k: 3, m: 20, which: [0, 1, 2] },
			pageIds: [1, 2, 3],
			visits: 0.3,
			seen: { k: 9, n: 9 },
			bytes: 20_000,
			threadMs: null,
			metric: null,
			delay: null,
			saving: null,
			hurts: null,
			example: { page: 0, condition: 'phone', finding: { ...example!, seen: { k: 3, n: 3 }, load: 1 } },
			weight: i
		};
		insertFinding(db, clientId, auditId, cause);
	}
})();

/** A page of 3 MB: photographs, a font, scripts and style of packages from the registry. */
async function savingsOfLargePage(): Promise<{ bytes: number; cpuMs: number }> {
	const noise = (i: number) =>
		sharp({
			create: {
				width: 1600,
				height: 900,
				channels: 3,
				background: '#246',
				noise: { type: 'gaussian', mean: 120, sigma: 12 }
			}
		})
			.blur(2 + i)
			.jpeg({ quality: 88 })
			.toBuffer();
	const pictures = await Promise.all(Array.from({ length: 8 }, (_, i) => noise(i)));
	const texts = ['axe-core/axe.js', 'svelte/compiler/index.js', 'carbon-components-svelte/css/white.css'].map((name) =>
		readFileSync(`node_modules/${name}`, 'utf8')
	);
	const begun = process.cpuUsage();
	for (const picture of pictures) await pictureFacts(picture, () => ({ width: 800, height: 450 }));
	for (const [i, text] of texts.entries()) {
		await packed(text);
		await packed(await minified(i === 2 ? 'style' : 'script', text));
	}
	const { user, system } = process.cpuUsage(begun);
	const bytes = [...pictures, ...texts].reduce((sum, { length }) => sum + length, 0);
	return { bytes, cpuMs: (user + system) / 1000 };
}

const savings = await savingsOfLargePage();
const rulesMs = timed(() => findingsOf(record));
const listMs = timed(() => worklistView(db, { clientId }));
const filteredMs = timed(() => worklistView(db, { clientId, words: '4999' }));
const found = findingsOf(record).findings.length;
db.close();
rmSync(folder, { recursive: true, force: true });

const ms = (value: number) => `${value.toFixed(1)} ms`;
printTable('Audits', [
	{
		what: `all rules over a record of ${REQUESTS} requests (${found} findings)`,
		measured: ms(rulesMs),
		limit: 'under 50 ms',
		holds: rulesMs < 50
	},
	{ what: `a page of a worklist of ${LINES} lines`, measured: ms(listMs), limit: 'under 100 ms', holds: listMs < 100 },
	{
		what: 'the same, found by a part of an address',
		measured: ms(filteredMs),
		limit: 'under 100 ms',
		holds: filteredMs < 100
	},
	{
		what: `savings of a page of ${(savings.bytes / 1e6).toFixed(1)} MB, processor time`,
		measured: `${(savings.cpuMs / 1000).toFixed(1)} s`,
		limit: 'within 90 s',
		holds: savings.cpuMs < 90_000
	}
]);
