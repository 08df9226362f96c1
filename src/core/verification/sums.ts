/** Whether the files of a bundle are those that its manifest names, and the manifest the one that was signed. */
import * as v from 'valibot';
import {
	ABOUT,
	FIGURES,
	harFile,
	loadFile,
	loadsFile,
	MANIFEST,
	Manifest,
	PAGE,
	pictureFile,
	REPORT,
	trialFile
} from '../report/bundle';
import { fileSeal, manifestSeal } from '../report/seal';
import type { FrozenReport, TrialEvidence } from '../report/view';
import { fault, type Fault } from './faults';
import type { Files, Tools } from './tools';

export const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

export function readManifest(files: Files): Manifest | null {
	try {
		const bytes = files.get(MANIFEST);
		return bytes ? v.parse(Manifest, JSON.parse(textOf(bytes))) : null;
	} catch {
		return null;
	}
}

export function sumFaults(files: Files, { files: named }: Manifest, { sha256 }: Tools): Fault[] {
	const faults = named.flatMap(({ name, bytes: size, sha256: sum }) => {
		const bytes = files.get(name);
		if (!bytes) return [fault('missing', name, 'named by the manifest and not there')];
		const own = sha256(bytes);
		if (own !== sum) return [fault('sum', name, 'SHA-256', own, sum)];
		return bytes.length === size ? [] : [fault('sum', name, 'size', String(bytes.length), String(size))];
	});
	const names = named.map(({ name }) => name);
	const doubles = names.filter((name, i) => names.indexOf(name) !== i);
	const listed = new Set([MANIFEST, ...names]);
	const extra = [...files.keys()].filter((name) => !listed.has(name));
	return [
		...faults,
		...doubles.map((name) => fault('extra', name, 'named twice by the manifest')),
		...extra.map((name) => fault('extra', name, 'not named by the manifest'))
	];
}

/** Of a manifest that is signed: by whom, and each file. */
export function signatureFaults(manifest: Manifest, { isSigned, pinned }: Tools): Fault[] {
	const { key, signature, files } = manifest;
	if (!key || !signature) return pinned ? [fault('signature', MANIFEST, 'not signed, though a key was given')] : [];
	const faults: Fault[] = [];
	if (pinned && pinned !== key) faults.push(fault('signature', MANIFEST, 'signed by another key', key, pinned));
	for (const file of files)
		if (!file.signature || !isSigned(key, fileSeal(manifest, file), file.signature))
			faults.push(fault('signature', file.name, 'not as it was signed'));
	if (!isSigned(key, manifestSeal(manifest), signature))
		faults.push(fault('signature', MANIFEST, 'not as it was signed: titles, versions or the list of files'));
	return faults;
}

/** The files that a bundle of this report has, and no others. */
export function contentFaults(
	files: Files,
	report: Pick<FrozenReport, 'pictures'>,
	trials: readonly TrialEvidence[]
): Fault[] {
	const required = new Set([ABOUT, MANIFEST, PAGE, REPORT, FIGURES]);
	for (const { id, loads } of trials) {
		required.add(trialFile(id)).add(loadsFile(id));
		for (const load of loads) required.add(loadFile(load.id)).add(harFile(load.id));
	}
	for (const key of report.pictures) required.add(pictureFile(key));
	const missing = [...required].filter((name) => !files.has(name));
	const extra = [...files.keys()].filter((name) => !required.has(name));
	return [
		...missing.map((name) => fault('missing', name, 'not there, though a bundle of this report has it')),
		...extra.map((name) => fault('extra', name, 'no file of this report'))
	];
}
