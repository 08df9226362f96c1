/** The evidence bundle of a frozen version, as a zip. */
import { createHash } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { harOf } from '$core/formats/har';
import { loadsCsv } from '$core/formats/csv';
import type { LoadRecord } from '$core/load/record';
import { completeRecord } from '$core/load/emptyRecord';
import {
	FIGURES,
	figuresCsv,
	harFile,
	loadFile,
	MANIFEST,
	PAGE,
	REPORT,
	reportFile,
	trialFile,
	type Manifest
} from '$core/report/bundle';
import type { Db } from '../db/connection';
import { findArtifact } from '../storage/artifacts';
import { frozenOf } from './queries';

const ABOUT = `The evidence of a report made with Zafra.

report.html    the report; opens in any browser, without a network
report.json    the same as data
figures.csv    every comparison with its interval and verdict
trials/        design, loads and results of each trial
loads/         each load as a record (JSON) and as HAR 1.2
loads-N.csv    one row a load of trial N
manifest.json  SHA-256 sums of all files, and the versions of the rules

npm run verify -- FILE.zip computes every figure anew from the loads.
`;

/** @param html the report as one file that opens without a network */
export function bundleOf(db: Db, versionId: number, html: string, version: string): Uint8Array {
	const frozen = frozenOf(db, versionId);
	const files: Record<string, Uint8Array> = {
		'README.txt': strToU8(ABOUT),
		[PAGE]: strToU8(html),
		[REPORT]: json(reportFile(frozen)),
		[FIGURES]: strToU8(figuresCsv(frozen.trials))
	};
	for (const trial of frozen.trials) {
		files[trialFile(trial.id)] = json(trial);
		files[`loads-${trial.id}.csv`] = strToU8(
			loadsCsv(
				trial.design.arms,
				trial.loads.map((load) => ({ ...load, reason: null, capped: false }))
			)
		);
		for (const { id } of trial.loads) Object.assign(files, loadFiles(db, versionId, id, version));
	}
	const manifest: Manifest = {
		format: 1,
		title: frozen.view.title,
		number: frozen.number,
		frozenAt: frozen.frozenAt,
		rules: frozen.rules,
		files: Object.entries(files).map(([name, bytes]) => ({ name, bytes: bytes.length, sha256: sumOf(bytes) }))
	};
	return zipSync({ ...files, [MANIFEST]: json(manifest) }, { level: 6 });
}

const json = (value: unknown) => strToU8(JSON.stringify(value, null, 1));
const sumOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

function loadFiles(db: Db, versionId: number, id: number, version: string): Record<string, Uint8Array> {
	const packed = findArtifact(db, { owner: `report:${versionId}`, role: `record/${id}` });
	if (!packed) return {};
	const record = completeRecord(JSON.parse(gunzipSync(packed).toString('utf8')) as LoadRecord);
	return { [loadFile(id)]: json(record), [harFile(id)]: json(harOf(record, version)) };
}
