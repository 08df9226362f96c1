/** The evidence bundle of a frozen version, as a zip. */
import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { harOf } from '$core/formats/har';
import { loadsCsv } from '$core/formats/csv';
import {
	ABOUT,
	FIGURES,
	figuresCsv,
	harFile,
	loadFile,
	loadsFile,
	MANIFEST,
	PAGE,
	pictureFile,
	REPORT,
	reportFile,
	trialFile,
	type Manifest
} from '$core/report/bundle';
import { fileSeal, manifestSeal } from '$core/report/seal';
import type { FrozenReport } from '$core/report/view';
import type { Db } from '../../base/db/connection';
import { findArtifact } from '../../base/storage/artifacts';
import { findReportPicture } from './pictures';
import { frozenOf } from './queries/reports';
import type { SigningKey } from './signing';
import { unpackRecord } from '../loads/loads';

const README = `The evidence of a report made with Zafra.

report.html    the report; opens in any browser, without a network
report.json    the same as data
figures.csv    every comparison with its interval and verdict
trials/        design, loads and results of each trial
loads/         each load as a record (JSON) and as HAR 1.2
loads-N.csv    one row a load of trial N
pictures/      the pictures that the report shows
manifest.json  SHA-256 sums and signatures of all files, the key, and the versions of the rules

npm run verify -- FILE.zip --key KEY computes every figure anew from the loads, and compares words and pictures with
what was signed. KEY stands at the foot of the shared report.
`;

export interface BundleOptions {
	/** The report as one file that opens without a network. */
	html: string;
	/** Names what drew it. */
	drawing: string;
	/** Of Zafra. */
	version: string;
	key: SigningKey;
}

export function bundleOf(db: Db, versionId: number, { html, drawing, version, key }: BundleOptions): Uint8Array {
	const frozen = frozenOf(db, versionId);
	const files: Record<string, Uint8Array> = {
		[ABOUT]: strToU8(README),
		[PAGE]: strToU8(html),
		[REPORT]: json(reportFile(frozen)),
		[FIGURES]: strToU8(figuresCsv(frozen.trials))
	};
	for (const trial of frozen.trials) {
		files[trialFile(trial.id)] = json(trial);
		files[loadsFile(trial.id)] = strToU8(
			loadsCsv(
				trial.design.arms,
				trial.loads.map((load) => ({ ...load, reason: null, capped: false }))
			)
		);
		for (const { id } of trial.loads) Object.assign(files, loadFiles(db, versionId, id, version));
	}
	for (const picture of frozen.pictures) {
		const bytes = findReportPicture(db, versionId, picture);
		if (bytes) files[pictureFile(picture)] = new Uint8Array(bytes);
	}
	const manifest = signedManifest(files, frozen, { drawing, version, key });
	return zipSync({ ...files, [MANIFEST]: json(manifest) }, { level: 6 });
}

type Files = Record<string, Uint8Array>;

/** Each file by its sum, and the list of them, as `core/report/seal` writes them. */
function signedManifest(
	files: Files,
	{ view, number, frozenAt, rules }: FrozenReport,
	{ drawing, version, key }: Omit<BundleOptions, 'html'>
): Manifest {
	const report = { title: view.title, number, frozenAt };
	const listed = Object.entries(files).map(([name, bytes]) => {
		const file = { name, bytes: bytes.length, sha256: sumOf(bytes) };
		return { ...file, signature: key.sign(fileSeal(report, file)) };
	});
	const manifest = { format: 2 as const, ...report, rules, zafra: version, drawing, key: key.publicKey, files: listed };
	return { ...manifest, signature: key.sign(manifestSeal(manifest)) };
}

const json = (value: unknown) => strToU8(JSON.stringify(value, null, 1));
const sumOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

function loadFiles(db: Db, versionId: number, id: number, version: string): Record<string, Uint8Array> {
	const packed = findArtifact(db, { owner: { kind: 'report', id: versionId }, role: `record/${id}` });
	if (!packed) return {};
	const record = unpackRecord(packed);
	return { [loadFile(id)]: json(record), [harFile(id)]: json(harOf(record, version)) };
}
