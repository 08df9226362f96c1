/**
 * Records the demonstration's audits: Skerry Line before two mends, after them, and after one was lost again; the
 * pictures of Pellow's.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';
import { join } from 'node:path';
import pino from 'pino';
import * as v from 'valibot';
import { AuditInput } from '$core/audits/audit';
import { hostTimes } from '../demo-web/hosts';
import type { SiteState } from '../demo-web/state/switches';
import { Lab } from '../src/lab/lab';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { exportAudit, isLookedThrough } from '../src/lib/server/demo/audits';
import { insertScenario } from '../src/lib/server/demo/clients';
import { createAudit, existingAudit, repeatAudit } from '../src/lib/server/rooms/audits/commands';
import { findClientByName, sitesOf } from '../src/lib/server/rooms/clients/view';
import { pagesToChoose } from '../src/lib/server/rooms/pages/view';
import { startRunner } from '../src/lib/server/runner/loop';
import { startDemoWeb } from '../test/support/world';

interface Audited {
	file: string;
	client: string;
	host: string;
	/** Paths; the client's sample without them. */
	paths?: readonly string[];
	/** What is switched on the site before it. */
	change: Partial<SiteState>;
	/** What is written on the worklist after it. */
	said: Parameters<typeof exportAudit>[3];
}

const SKERRY = { client: 'Skerry Line', host: 'skerry-line.test' };

const AUDITS: readonly Audited[] = [
	{
		file: '1-before',
		...SKERRY,
		change: { compression: false, httpCaching: false, ads: 'half-filled' },
		said: [
			{ rule: 'text-plain-sent', state: 'done', owner: 'The host', note: 'gzip switched on for text' },
			{ rule: 'short-lifetime', state: 'done', owner: 'The host', note: 'Files are kept for a year' },
			{
				rule: 'third-party-cost',
				state: 'planned',
				owner: 'Ines Harrow',
				question: 'Do the ads still pay for themselves?'
			}
		]
	},
	{
		file: '2-after-two-mends',
		...SKERRY,
		change: { compression: true, httpCaching: true },
		said: [{ rule: 'slot-empty', state: 'accepted', owner: 'Tam Brindle' }]
	},
	{ file: '3-one-came-back', ...SKERRY, change: { httpCaching: false }, said: [] },
	{
		file: '4-pictures',
		client: 'Pellow’s Seed House',
		host: 'pellows-seed-house.test',
		paths: ['/', '/seed', '/seed/bean', '/seed/tomato', '/saving'],
		change: {},
		said: [
			{ rule: 'picture-too-large', state: 'accepted', owner: 'Ines Harrow', question: 'Who uploads the photographs?' }
		]
	}
];

const folder = mkdtempSync(join(tmpdir(), 'zafra-record-'));
const world = await startDemoWeb();
const db = openDatabase(folder);
insertScenario(db);
/** Those whose file is named so; all without. */
const only = process.argv[2] ?? '';
const runner = startRunner({
	db,
	lab: new Lab({ hostMap: world.rules, hostTimes: hostTimes(), trustedKeys: [world.keyHash] }),
	log: pino({ level: 'info' })
});
mkdirSync('demo/audits', { recursive: true });
const newest = new Map<string, number>();
for (const { file, client, host, paths, change, said } of AUDITS.filter((audited) => audited.file.includes(only))) {
	world.store.change(host, change, 'published');
	const before = newest.get(client);
	const id = before === undefined ? begin(client, host, paths) : repeatAudit(db, before);
	newest.set(client, id);
	while (existingAudit(db, id).status === 'running' || !isLookedThrough(db, id)) await pause(500);
	const packed = exportAudit(db, id, client, said);
	writeFileSync(`demo/audits/${file}.ndjson.br`, packed);
	console.log(`${file}: ${packed.length} bytes`);
}

function begin(client: string, host: string, paths: readonly string[] | undefined): number {
	const clientId = findClientByName(db, client)!;
	if (paths)
		return createAudit(db, v.parse(AuditInput, { clientId, urls: paths.map((path) => `https://${host}${path}`) }));
	const site = sitesOf(db, clientId).find((own) => own.host === host)!;
	const pages = pagesToChoose(db, site.id)
		.filter(({ chosen }) => chosen)
		.map(({ id }) => id);
	return createAudit(db, v.parse(AuditInput, { clientId, pages }));
}

runner.stop();
await runner.finished;
world.close();
db.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
