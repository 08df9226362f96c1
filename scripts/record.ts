/**
 * Records the demonstration trials: the real lab, real Chromium, pages of the simulated web.
 * `npm run demo:record -- 01` records only those whose file begins with 01.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { hostTimes } from '../demo-web/hosts';
import * as v from 'valibot';
import { NewTrialInput } from '$core/trial/design/input';
import { Lab } from '../src/lab/lab';
import { findClientByName } from '../src/lib/server/rooms/clients/queries/clients';
import { openDatabase } from '../src/lib/server/base/db/connection';
import { findTrial } from '../src/lib/server/rooms/trials/trial';
import { insertScenario } from '../src/lib/server/demo/clients';
import { exportTrial } from '../src/lib/server/demo/demo';
import { createTrial, startTrial } from '../src/lib/server/rooms/trials/commands';
import { startRunner } from '../src/lib/server/runner/loop';
import { startDemoWeb } from '../test/support/world';

const ROUNDS = Number(process.env.RECORD_ROUNDS ?? 8);
const MOST_BYTES = 4_000_000;

type Recording = { file: string; client: string } & Omit<
	v.InferInput<typeof NewTrialInput>,
	'conditions' | 'rounds' | 'warmups'
> & { rounds?: number };

const LATHWORK = { kind: 'builder', name: 'Lathwork', version: '6.1', tier: 'free' } as const;

const PARLOUR_BELL = { kind: 'third party', name: 'Parlour Bell', tier: 'paid', monthlyCost: 29 } as const;

const ALL: Recording[] = [
	{
		file: '01-chat-on-the-timetable',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Did adding the chat make the timetable slower?',
		seed: 1921,
		arms: [
			{
				name: 'Without chat',
				url: 'https://skerry-line.test/timetable',
				baseline: true,
				setup: { components: [LATHWORK], features: { 'Visit counting': true, Chat: false } }
			},
			{
				name: 'With Parlour Bell',
				url: 'https://with-chat.skerry-line.test/timetable',
				baseline: false,
				setup: {
					components: [LATHWORK, PARLOUR_BELL],
					features: { 'Visit counting': true, Chat: true },
					effortHours: 1
				}
			}
		],
		intended: ['features', 'tiers', 'third-parties', 'picture', 'words'],
		steps: [{ expect: { selector: 'h1', text: 'Timetable' } }]
	},
	{
		file: '02-same-page-twice',
		kind: 'same-page',
		client: 'Skerry Line',
		question: 'How far apart are two runs of the same home page?',
		seed: 404,
		rounds: 10,
		arms: [
			{ name: 'First run', url: 'https://skerry-line.test/', baseline: true },
			{ name: 'Second run', url: 'https://skerry-line.test/', baseline: false }
		]
	},
	{
		file: '03-plugins-on-the-home-page',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Which plugin makes the home page faster?',
		seed: 77,
		rounds: 10,
		settleWithinS: 60,
		arms: [
			{
				name: 'As it is',
				url: 'https://with-chat.skerry-line.test/',
				baseline: true,
				setup: { components: [LATHWORK, PARLOUR_BELL] }
			},
			{
				name: 'Larder',
				url: 'https://larder-chat.skerry-line.test/',
				baseline: false,
				setup: {
					components: [
						LATHWORK,
						PARLOUR_BELL,
						{
							kind: 'plugin',
							name: 'Larder',
							version: '3.2',
							tier: 'paid',
							monthlyCost: 12,
							jobs: ['page cache', 'script minifying'],
							settings: '{"pageCache":true,"level":"pages-and-files"}'
						}
					],
					effortHours: 3
				}
			},
			{
				name: 'Hushbox',
				url: 'https://hushed.skerry-line.test/',
				baseline: false,
				setup: {
					components: [
						LATHWORK,
						PARLOUR_BELL,
						{ kind: 'plugin', name: 'Hushbox', version: '1.9', tier: 'free', monthlyCost: 0, jobs: ['script delay'] }
					],
					effortHours: 1
				}
			}
		],
		intended: ['cache', 'tiers', 'third-parties', 'compression', 'text-compression'],
		steps: [{ expect: { selector: 'h1' } }]
	},
	{
		file: '04-chat-started-later',
		kind: 'side-by-side',
		client: 'Skerry Line',
		question: 'Is the timetable faster when the chat starts by a timer?',
		seed: 505,
		arms: [
			{
				name: 'Chat at once',
				url: 'https://with-chat.skerry-line.test/timetable',
				baseline: true,
				setup: { components: [LATHWORK, PARLOUR_BELL] }
			},
			{
				name: 'Chat by a timer',
				url: 'https://later-chat.skerry-line.test/timetable',
				baseline: false,
				setup: { components: [LATHWORK, PARLOUR_BELL], effortHours: 0.5 }
			}
		],
		intended: ['third-parties', 'picture', 'words'],
		steps: [{ expect: { selector: 'h1', text: 'Timetable' } }]
	}
];

const wanted = process.argv[2] ?? '';
const RECORDINGS = ALL.filter(({ file }) => file.startsWith(wanted));
const folder = mkdtempSync(join(tmpdir(), 'zafra-record-'));
const world = await startDemoWeb();
const db = openDatabase(folder);
insertScenario(db);
const ids = RECORDINGS.map(({ client, ...order }) =>
	createTrial(
		db,
		v.parse(NewTrialInput, {
			rounds: ROUNDS,
			...order,
			conditions: ['phone', 'desktop'],
			warmups: 1,
			clientId: findClientByName(db, client)
		})
	)
);
for (const id of ids) startTrial(db, id);
const runner = startRunner({
	db,
	lab: new Lab({ hostMap: world.rules, hostTimes: hostTimes(), trustedKeys: [world.keyHash] }),
	log: pino({ level: 'info' })
});
while (ids.some((id) => findTrial(db, id)!.status !== 'done')) await new Promise((next) => setTimeout(next, 500));
runner.stop();
await runner.finished;

mkdirSync('demo/trials', { recursive: true });
for (const [index, { file }] of RECORDINGS.entries()) {
	const packed = exportTrial(db, ids[index]!);
	if (packed.length > MOST_BYTES) throw new Error(`${file} has ${packed.length} bytes: too many to ship.`);
	writeFileSync(`demo/trials/${file}.ndjson.br`, packed);
	console.log(`${file}: ${packed.length} bytes`);
}
world.close();
db.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
