/** Records the demonstration's audits: Skerry Line before two mends, after them, and after one was lost again. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import * as v from 'valibot';
import { AuditInput } from '$core/audits/audit';
import { hostTimes } from '../demo-web/hosts';
import type { SiteState } from '../demo-web/state/switches';
import { Lab } from '../src/lab/lab';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { exportAudit } from '../src/lib/server/demo/audits';
import { insertScenario } from '../src/lib/server/demo/clients';
import { createAudit, existingAudit, repeatAudit } from '../src/lib/server/rooms/audits/commands';
import { findClientByName, sitesOf } from '../src/lib/server/rooms/clients/view';
import { pagesToChoose } from '../src/lib/server/rooms/pages/view';
import { startRunner } from '../src/lib/server/runner/loop';
import { startDemoWeb } from '../test/support/world';

const CLIENT = 'Skerry Line';
const HOST = 'skerry-line.test';

interface Audited {
	file: string;
	/** What is switched on the site before it. */
	change: Partial<SiteState>;
	/** What is written on the worklist after it. */
	said: Parameters<typeof exportAudit>[3];
}

const AUDITS: readonly Audited[] = [
	{
		file: '1-before',
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
		change: { compression: true, httpCaching: true },
		said: [{ rule: 'slot-empty', state: 'accepted', owner: 'Tam Brindle' }]
	},
	{ file: '3-one-came-back', change: { httpCaching: false }, said: [] }
];

const folder = mkdtempSync(join(tmpdir(), 'zafra-record-'));
const world = await startDemoWeb();
const db = openDatabase(folder);
insertScenario(db);
const clientId = findClientByName(db, CLIENT)!;
const site = sitesOf(db, clientId).find(({ host }) => host === HOST)!;
const pages = pagesToChoose(db, site.id)
	.filter(({ chosen }) => chosen)
	.map(({ id }) => id);
const runner = startRunner({
	db,
	lab: new Lab({ hostMap: world.rules, hostTimes: hostTimes(), trustedKeys: [world.keyHash] }),
	log: pino({ level: 'info' })
});
mkdirSync('demo/audits', { recursive: true });
let before: number | null = null;
for (const { file, change, said } of AUDITS) {
	world.store.change(HOST, change, 'published');
	const id: number =
		before === null ? createAudit(db, v.parse(AuditInput, { clientId, pages })) : repeatAudit(db, before);
	while (existingAudit(db, id).status === 'running') await new Promise((next) => setTimeout(next, 500));
	const packed = exportAudit(db, id, CLIENT, said);
	writeFileSync(`demo/audits/${file}.ndjson.br`, packed);
	console.log(`${file}: ${packed.length} bytes`);
	before = id;
}
runner.stop();
await runner.finished;
world.close();
db.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
