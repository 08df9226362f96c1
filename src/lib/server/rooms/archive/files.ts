/** The files of an archive: records and pictures, each under the hash of its bytes. */
import { setImmediate as giveWay } from 'node:timers/promises';
import { gunzipSync } from 'node:zlib';
import { parseRecord } from '$core/load/record/parseRecord';
import { sha256 } from '../../base/db/functions';
import type { ArchiveFaults } from './check';
import type { Tables } from './secrets';

/** A record of 20,000 requests has some 20 MB. */
const MOST_RECORD_BYTES = 64_000_000;

const beginsWith = (bytes: Buffer, magic: string, at = 0) =>
	bytes.subarray(at, at + magic.length).equals(Buffer.from(magic, 'latin1'));

/** Kinds of files by their media type, and how their bytes begin. */
const MEDIA: Readonly<Record<string, (bytes: Buffer) => boolean>> = {
	'application/gzip': (bytes) => beginsWith(bytes, '\x1f\x8b'),
	'image/webp': (bytes) => beginsWith(bytes, 'RIFF') && beginsWith(bytes, 'WEBP', 8),
	'image/png': (bytes) => beginsWith(bytes, '\x89PNG'),
	'image/jpeg': (bytes) => beginsWith(bytes, '\xff\xd8\xff')
};

export interface ArchiveFile {
	media: string;
	bytes: Buffer;
}

/** @returns the files by their hashes; what is wrong with one is added to the faults */
export function checkedFiles(
	media: Readonly<Record<string, string>>,
	entries: ReadonlyMap<string, Uint8Array>,
	faults: ArchiveFaults
): Map<string, ArchiveFile> {
	const files = new Map<string, ArchiveFile>();
	for (const [hash, type] of Object.entries(media)) {
		const entry = entries.get(`artifacts/${hash}`);
		const where = `artifacts/${hash.slice(0, 12)}…`;
		if (!entry || sha256(entry) !== hash) faults.add(where, 'it is missing or changed: the archive is damaged.');
		else {
			const bytes = Buffer.from(entry.buffer, entry.byteOffset, entry.length);
			const isKnown = Object.hasOwn(MEDIA, type) && MEDIA[type]!(bytes);
			if (isKnown) files.set(hash, { media: type, bytes });
			else faults.add(where, 'it is neither a record nor a picture.');
		}
		if (faults.isFull) break;
	}
	for (const name of entries.keys())
		if (name !== 'client.json' && !Object.hasOwn(media, name.replace('artifacts/', '')))
			faults.add(name.slice(0, 60), 'nothing names this file.');
	return files;
}

/** Each use names a file of the kind that it needs, and a record can be read. Gives way to others between two. */
export async function checkUses(
	{ artifact_use: uses = [] }: Tables,
	files: ReadonlyMap<string, ArchiveFile>,
	faults: ArchiveFaults
): Promise<void> {
	for (const { owner_kind: kind, owner_id: owner, role, sha256: hash } of uses) {
		const file = files.get(String(hash));
		const where = `${kind} ${owner}, ${role}`;
		if (!file) faults.add(where, 'its file is not in the archive.');
		else if ((role === 'record') !== (file.media === 'application/gzip'))
			faults.add(where, 'its file is of another kind.');
		else if (role === 'record') {
			await giveWay();
			const problem = recordProblem(file.bytes);
			if (problem) faults.add(where, problem);
		}
		if (faults.isFull) return;
	}
}

function recordProblem(packed: Buffer): string | null {
	try {
		parseRecord(JSON.parse(gunzipSync(packed, { maxOutputLength: MOST_RECORD_BYTES }).toString('utf8')));
		return null;
	} catch (error) {
		return (error as Error).message.slice(0, 300);
	}
}
