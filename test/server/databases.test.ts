/** Every released shape of the database comes forward with nothing lost. */
import { expect } from 'chai';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import Database from 'better-sqlite3';
import { isStepMetric, METRIC_IDS } from '$core/metrics/catalogue';
import { openDatabase, type Db } from '../../src/lib/server/base/db/connection';
import { findFrame, findPicture, findRecord, frozenConditions } from '../../src/lib/server/rooms/loads/loads';
import { findRequest, openRequests, requestsOfTrial } from '../../src/lib/server/rooms/loads/requested';
import { deriveEvidence, findDifferencePicture, findEvidence } from '../../src/lib/server/rooms/trials/evidence';
import { deriveJudgement, findJudgement, judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { markersOf, settlingsOf } from '../../src/lib/server/rooms/trials/queries/notes';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { queueOutdated } from '../../src/lib/server/runner/catchUp';
import { placeDatabase, RELEASED_SCHEMAS } from '../support/databases';

interface OldLoad {
	id: number;
	trial_id: number | null;
	arm_id: number | null;
	condition_id: string;
	record: Buffer;
	picture: Buffer | null;
	[column: string]: unknown;
}

/** A derived row: its subject was one text until schema 16. */
interface Derived {
	subject?: string;
	subject_id?: number;
	body: string;
}

/** Columns that today's rules compute anew from the same figures. */
const RESCORED = ['score', 'recipe'];

/** Columns that became others, as they stood before: a subject was one text, `of` a part of the order. */
const asText = (kind: string, id: string) => `CASE ${kind} WHEN 'nobody' THEN ${kind} ELSE ${kind} || ':' || ${id} END`;
const ORDER = `CASE WHEN kind = 'load' THEN json_remove("order", '$.of') ELSE "order" END`;
const BEFORE: Record<string, string> = { 'job.order': ORDER };
const NOW: Record<string, string> = {
	'job.subject': asText('subject_kind', 'subject_id'),
	'derived.subject': asText('subject_kind', 'subject_id'),
	'artifact_use.owner': asText('owner_kind', 'owner_id')
};

/** From here on the tables stay as they are: what comes is added. */
const FIRST_LASTING = 5;

for (const schema of RELEASED_SCHEMAS.filter((value) => value < FIRST_LASTING))
	describe(`a database of schema ${schema}`, () => {
		let folder: string;
		let db: Db;
		let old: Database.Database;
		before(() => {
			folder = mkdtempSync(join(tmpdir(), 'zafra-schema-'));
			placeDatabase(schema, folder);
			old = new Database(readCopy(folder));
			db = openDatabase(folder);
		});
		after(() => {
			db.close();
			old.close();
			rmSync(folder, { recursive: true });
		});
		const oldLoads = () => old.prepare('SELECT * FROM load ORDER BY id').all() as OldLoad[];
		const rows = (table: string) => old.prepare(`SELECT * FROM ${table}`).all() as Record<string, unknown>[];

		it('keeps every load with all its figures', () => {
			const now = new Map((db.prepare('SELECT * FROM load').all() as OldLoad[]).map((load) => [load.id, load]));
			expect(now.size).to.equal(oldLoads().length);
			for (const load of oldLoads()) {
				const same = Object.keys(load).filter((name) => name in now.get(load.id)! && !RESCORED.includes(name));
				expect(same).to.include.members(METRIC_IDS.filter((id) => id !== 'score' && !isStepMetric(id)));
				for (const name of same.filter((column) => column !== 'job_id'))
					expect(now.get(load.id)![name], `${name} of load ${load.id}`).to.deep.equal(load[name]);
			}
		});

		it('keeps every record, frame and picture, byte for byte', () => {
			for (const { id, record, picture } of oldLoads()) {
				const { url, requests } = JSON.parse(gunzipSync(record).toString()) as { url: string; requests: unknown[] };
				expect(findRecord(db, id)).to.deep.include({ url });
				expect(findRecord(db, id)!.requests).to.have.length(requests.length);
				expect(findPicture(db, id)).to.deep.equal(picture);
			}
			for (const frame of rows('frame'))
				expect(findFrame(db, frame.load_id as number, frame.position as number)).to.deep.equal(frame.image);
			expect(db.prepare("SELECT count(*) FROM artifact_use WHERE role = 'frame'").pluck().get()).to.equal(
				rows('frame').length
			);
		});

		it('keeps every trial with its arms, its frozen conditions and its progress', () => {
			for (const trial of rows('trial')) {
				const now = findTrial(db, trial.id as number)!;
				expect(now).to.include({ question: trial.question, createdAt: trial.created_at, startedAt: trial.started_at });
				expect(now.design).to.include({ kind: trial.kind, seed: trial.seed, warmups: trial.warmups });
				expect(now.design.conditions).to.deep.equal(JSON.parse(trial.conditions as string));
				const arms = rows('arm').filter((arm) => arm.trial_id === trial.id);
				expect(now.design.arms.map((arm) => [arm.id, arm.name, arm.url])).to.deep.equal(
					arms.map((arm) => [arm.id, arm.name, arm.url])
				);
				const done = rows('job').filter((job) => job.trial_id === trial.id && job.status === 'done');
				expect(now.progress.done).to.equal(done.length);
			}
		});

		it('keeps every verdict, or computes the same', () => {
			for (const { trial_id, result } of rows('judgement') as { trial_id: number; result: string }[]) {
				const before = JSON.parse(result) as { results: { metric: string; verdict: string }[] };
				const trial = findTrial(db, trial_id)!;
				const after = findJudgement(db, trial_id)?.body ?? judgementOf(db, trial);
				const verdicts = (results: readonly { metric: string; verdict: string }[]) =>
					results.map(({ metric, verdict }) => [metric, verdict]);
				expect(verdicts(after.results)).to.deep.equal(verdicts(before.results));
			}
		});

		it('is caught up with by a lab: what the rules of today derive is queued behind all else, once', () => {
			// Looking at its answer above may have worked it out already.
			db.prepare(
				"DELETE FROM derived WHERE subject_kind = 'trial' AND subject_id = 1 AND kind IN ('judgement', 'outcome')"
			).run();
			queueOutdated(db);
			const waiting = () =>
				db.prepare('SELECT subject_kind, subject_id, "order" FROM job WHERE kind = \'derive\' AND priority < 0').all();
			const before = waiting();
			expect(before).to.deep.include({ subject_kind: 'trial', subject_id: 1, order: '"evidence"' });
			expect(before).to.deep.include({ subject_kind: 'trial', subject_id: 1, order: '"judgement"' });
			queueOutdated(db);
			expect(waiting()).to.deep.equal(before);
			deriveJudgement(db, 1);
			expect(
				db
					.prepare("SELECT count(*) FROM derived WHERE kind = 'outcome' AND subject_kind = 'trial' AND subject_id = 1")
					.pluck()
					.get()
			).to.equal(1);
		});

		it('loads on under the frozen conditions of each load, secrets and all', () => {
			for (const { id, trial_id, condition_id } of oldLoads().filter((load) => load.source !== 'har')) {
				if (trial_id === null) continue;
				const trial = rows('trial').find((row) => row.id === trial_id)!;
				const conditions = JSON.parse(trial.conditions as string) as { id: string }[];
				expect(frozenConditions(db, id)).to.deep.include(conditions.find((condition) => condition.id === condition_id));
			}
		});

		if (schema >= 2) {
			it('keeps loads outside trials, done and waiting, and on whose behalf they were made', () => {
				const singles = rows('single');
				expect(openRequests(db).map((item) => item.url)).to.deep.equal(
					singles
						.filter((item) => item.status !== 'done')
						.map((item) => item.url)
						.reverse()
				);
				for (const single of singles.filter((item) => item.load_id !== null)) {
					const jobId = db.prepare('SELECT job_id FROM load WHERE id = ?').pluck().get(single.load_id) as number;
					const request = findRequest(db, jobId)!;
					expect(request).to.include({ url: single.url, armId: single.arm_id, status: 'done', loadId: single.load_id });
					expect(request.conditions).to.deep.equal(JSON.parse(single.conditions as string));
				}
				const forArm = singles.filter((item) => item.trial_id === 1).length;
				expect(requestsOfTrial(db, 1)).to.have.length(forArm);
			});

			it('keeps settlings, markers, settings files and difference pictures', async () => {
				for (const { trial_id, name, image } of rows('evidence_picture'))
					expect(findDifferencePicture(db, trial_id as number, name as string)).to.deep.equal(image);
				expect(settlingsOf(db, 2)).to.have.length(rows('settling').length);
				expect(markersOf(db, 2)[0]).to.include({ words: 'Larder 2.2 switched on', file: '{"squeeze":true}' });
				await deriveEvidence(db, 1);
				expect(findEvidence(db, 1)!.body.arms).to.have.length(2);
			});
		}

		it('is sound, and opens a second time without a change', () => {
			expect(db.pragma('integrity_check', { simple: true })).to.equal('ok');
			expect(db.pragma('foreign_key_check')).to.deep.equal([]);
			const state = () => db.prepare('SELECT id, inputs FROM trial').all();
			const before = state();
			openDatabase(folder).close();
			expect(state()).to.deep.equal(before);
		});
	});

for (const schema of RELEASED_SCHEMAS.filter((value) => value >= FIRST_LASTING))
	describe(`a database of schema ${schema}`, () => {
		let folder: string;
		let db: Db;
		before(() => {
			folder = mkdtempSync(join(tmpdir(), 'zafra-schema-'));
			placeDatabase(schema, folder);
			const copy = new Database(readCopy(folder));
			writeFileSync(join(folder, 'old.db'), copy.serialize());
			copy.close();
			db = openDatabase(folder);
			db.prepare('ATTACH ? AS old').run(join(folder, 'old.db'));
		});
		after(() => {
			db.close();
			rmSync(folder, { recursive: true });
		});
		const tables = () =>
			db.prepare("SELECT name FROM old.sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%'").pluck().all();

		it('keeps every row of every table', () => {
			expect(tables()).to.include.members(['trial', 'load', 'job', 'artifact', 'derived', 'conditions_version']);
			for (const table of tables() as string[]) {
				const names = (db.pragma(`old.table_info(${table})`) as { name: string }[]).map(({ name }) => name);
				const columns = (asked: Record<string, string>) =>
					names
						.map((name) => (names.includes('subject_kind') ? null : asked[`${table}.${name}`]) ?? `"${name}"`)
						.join(', ');
				const before = columns(BEFORE);
				const now = columns(NOW);
				const lost = db.prepare(`SELECT ${before} FROM old.${table} EXCEPT SELECT ${now} FROM main.${table}`).all();
				expect(lost, table).to.deep.equal([]);
			}
		});

		it('knows of no disturbance where none was watched for, and judges as before', () => {
			expect(db.prepare('SELECT DISTINCT disturbed, others_share FROM load').all()).to.deep.equal([
				{ disturbed: 0, others_share: null }
			]);
			const judged = db.prepare("SELECT * FROM old.derived WHERE kind = 'judgement'").all();
			for (const { subject = '', subject_id: id, body } of judged as Derived[]) {
				const { results } = JSON.parse(body) as { results: { metric: string; verdict: string }[] };
				const now = judgementOf(db, findTrial(db, id ?? Number(subject.slice('trial:'.length)))!);
				expect(now.results.map(({ metric, verdict }) => [metric, verdict])).to.deep.equal(
					results.map(({ metric, verdict }) => [metric, verdict])
				);
			}
		});

		it('is sound', () => {
			expect(db.pragma('integrity_check', { simple: true })).to.equal('ok');
			expect(db.pragma('foreign_key_check')).to.deep.equal([]);
		});
	});

/** The file as it was, for comparing. */
function readCopy(folder: string): Buffer {
	const file = new Database(join(folder, 'zafra.db'), { readonly: true });
	const bytes = file.serialize();
	file.close();
	return bytes;
}
