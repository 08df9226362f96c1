import { expect } from 'chai';
import Database from 'better-sqlite3';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { noFigures } from '$core/metrics/catalogue';
import { scoreOf } from '$core/metrics/score';
import { openDatabase, type Db } from '../../src/lib/server/base/db/connection';
import { findFrame, findRecord } from '../../src/lib/server/rooms/loads/loads';
import { loadsOfTrial } from '../../src/lib/server/rooms/loads/queries/loads';
import { openRequests } from '../../src/lib/server/rooms/loads/requested';
import { findTrial } from '../../src/lib/server/rooms/trials/trial';
import { judgementOf } from '../../src/lib/server/rooms/trials/judgement';
import { findRejudged } from '../../src/lib/server/rooms/trials/queries/rejudged';
import { recordOf } from '../support/records';

const FIGURES = { ...noFigures(), lcp: 2400, tbt: 300, cls: 0.05, fcp: 1500, ttfb: 600, si: 2000, wire: 100_000 };

/** A database as schema 2 left it: two trials judged under the old rules, with singles, frames and evidence. */
function oldDatabase(folder: string): void {
	const db = new Database(join(folder, 'zafra.db'));
	for (const file of ['001-first', '002-designs'])
		db.exec(readFileSync(`src/lib/server/base/db/migrations/${file}.sql`, 'utf8'));
	db.pragma('user_version = 2');
	const trial = db.prepare(
		"INSERT INTO trial (id, question, kind, status, rounds, warmups, seed, primary_metrics, conditions, options, created_at) VALUES (?, 'Old?', 'side-by-side', 'done', ?, 0, 1, '[\"lcp\"]', ?, ?, '2026-01-01')"
	);
	const conditions = JSON.stringify([BUILT_IN_CONDITIONS[1]]);
	trial.run(1, 12, conditions, '{"looks":[8]}');
	trial.run(2, 24, conditions, '{"adaptive":true}');
	const load =
		db.prepare(`INSERT INTO load (trial_id, arm_id, condition_id, stage, round, warmup, status, capped, started_at, lab_ms, recipe, score, lcp, tbt, cls, fcp, ttfb, wire, record)
		VALUES (?, ?, 'desktop', 0, ?, 0, 'ok', 0, '2026-01-01', 1, 'zafra-1', 50, ?, 300, 0.05, 1500, 600, 100000, ?)`);
	for (const [id, rounds] of [
		[1, 12],
		[2, 16]
	] as const) {
		db.prepare(
			'INSERT INTO arm (id, trial_id, position, name, url, is_baseline) VALUES (?, ?, 0, ?, ?, 1), (?, ?, 1, ?, ?, 0)'
		).run(id * 10, id, 'A', 'http://a.test/', id * 10 + 1, id, 'B', 'http://b.test/');
		for (let round = 1; round <= rounds; round++)
			for (const arm of [0, 1]) {
				const lcp = FIGURES.lcp + arm * 400 + round;
				load.run(
					id,
					id * 10 + arm,
					round,
					lcp,
					gzipSync(JSON.stringify({ ...recordOf({ recipe: 'zafra-1' }), figures: { ...FIGURES, lcp, score: 50 } }))
				);
			}
		const results = [
			{ condition: 'desktop', arm: id * 10 + 1, metric: 'lcp', verdict: id === 1 ? 'same' : 'worse', primary: true }
		];
		db.prepare("INSERT INTO judgement (trial_id, version, stamp, result) VALUES (?, '2', 'x', ?)").run(
			id,
			JSON.stringify({ version: '2', alpha: 0.05, looks: 1, results, health: [] })
		);
	}
	db.prepare("INSERT INTO frame (load_id, position, at_ms, image) VALUES (1, 0, 0, x'01')").run();
	db.prepare("INSERT INTO single (id, url, conditions, created_at) VALUES (1, 'http://a.test/', ?, '2026-01-01')").run(
		JSON.stringify(BUILT_IN_CONDITIONS[1])
	);
	db.close();
}

describe('a database of schema 2', () => {
	let folder: string;
	let db: Db;
	before(() => {
		folder = mkdtempSync(join(tmpdir(), 'zafra-schema2-'));
		oldDatabase(folder);
		db = openDatabase(folder);
	});
	after(() => {
		db.close();
		rmSync(folder, { recursive: true });
	});

	it('keeps every load, frame and single load', () => {
		expect(loadsOfTrial(db, 1)).to.have.length(24);
		expect(loadsOfTrial(db, 2)).to.have.length(32);
		expect(findFrame(db, 1, 0)).to.deep.equal(Buffer.from([1]));
		expect(openRequests(db)).to.have.length(1);
		expect(db.pragma('foreign_key_check')).to.deep.equal([]);
	});

	it('has its scores by today’s recipe, in lists and in records, and never two recipes', () => {
		expect(db.prepare('SELECT DISTINCT recipe FROM load').pluck().all()).to.deep.equal(['zafra-2']);
		const [load] = loadsOfTrial(db, 1);
		expect(load!.figures.score).to.be.closeTo(scoreOf(load!.figures).value!, 1e-9);
		const record = findRecord(db, load!.id)!;
		expect(record.recipe).to.equal('zafra-2');
		expect(record.figures.score).to.be.closeTo(load!.figures.score!, 1e-9);
	});

	it('has its looks written down: the one before rounds were added, and those that an adaptive trial took', () => {
		const looks = (id: number) => findTrial(db, id)!.design.looks!.map((look) => [look.rounds, look.by]);
		expect(looks(1)).to.deep.equal([
			[8, 'plan'],
			[12, 'added']
		]);
		expect(looks(2)).to.deep.equal([
			[10, 'plan'],
			[14, 'plan'],
			[16, 'plan']
		]);
	});

	it('is judged anew, and a trial whose answer changed says since when, from what and to what', () => {
		const judged = judgementOf(db, findTrial(db, 1)!);
		expect(judged.results.find((result) => result.metric === 'lcp')!.verdict).to.equal('worse');
		const rejudged = findRejudged(db, 1)!;
		expect(rejudged).to.include({ fromVersion: '2', fromRecipe: 'zafra-1' });
		expect(rejudged.changes).to.deep.equal([
			{ condition: 'desktop', arm: 11, metric: 'lcp', before: 'same', after: 'worse' }
		]);
		judgementOf(db, findTrial(db, 2)!);
		expect(findRejudged(db, 2)!.changes).to.deep.equal([]);
		expect(findRejudged(db, 99)).to.equal(null);
	});

	it('is opened a second time without a change', () => {
		const before = db.prepare('SELECT options, inputs FROM trial ORDER BY id').all();
		const again = openDatabase(folder);
		expect(again.prepare('SELECT options, inputs FROM trial ORDER BY id').all()).to.deep.equal(before);
		again.close();
	});
});
