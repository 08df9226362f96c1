/** Zip files of which nobody knows what is in them: taken apart a piece at a time, within bounds. */
import { Unzip, UnzipInflate, unzipSync, type UnzipFile } from 'fflate';

export interface ZipBounds {
	entries: number;
	/** Of one entry, unpacked. */
	entryBytes: number;
	/** Of all entries, unpacked. */
	totalBytes: number;
}

export type ZipFaultCode =
	'damaged' | 'too-many' | 'entry-too-large' | 'too-large' | 'odd-name' | 'double' | 'unlisted';

/** Why a file is not taken apart. */
export class ZipFault extends Error {
	constructor(
		readonly code: ZipFaultCode,
		/** The entry it is about; empty for the whole. */
		readonly entry = ''
	) {
		super(entry ? `${code}: ${entry}` : code);
	}
}

/** Bytes that are handed on at once: so much is unpacked beyond a bound before it is seen. */
const PIECE_BYTES = 1 << 15;
/** Names that an archive of ours has: plain path segments, none that leads elsewhere. */
const PLAIN_NAME = /^[\w-]+(\.[\w-]+)*(\/[\w-]+(\.[\w-]+)*)*$/;
const ODD_SEGMENTS = new Set(['__proto__', 'constructor', 'prototype']);

function checkName(name: string, files: ReadonlyMap<string, unknown>): void {
	const isOdd = !PLAIN_NAME.test(name) || name.split('/').some((segment) => ODD_SEGMENTS.has(segment));
	if (isOdd) throw new ZipFault('odd-name', name.slice(0, 100));
	if (files.has(name)) throw new ZipFault('double', name);
}

/** The pieces of one entry as they come. @throws ZipFault once a bound is passed */
class Entry {
	readonly #pieces: Uint8Array[] = [];
	#size = 0;
	isWhole = false;

	constructor(
		private readonly name: string,
		private readonly mostBytes: number
	) {}

	add(piece: Uint8Array, isLast: boolean): void {
		this.#size += piece.length;
		if (this.#size > this.mostBytes) throw new ZipFault('entry-too-large', this.name);
		this.#pieces.push(piece);
		this.isWhole = isLast;
	}

	bytes(): Uint8Array {
		const whole = new Uint8Array(this.#size);
		let at = 0;
		for (const piece of this.#pieces) {
			whole.set(piece, at);
			at += piece.length;
		}
		return whole;
	}
}

/**
 * All entries by name, in their order. Sizes that the file claims are not believed: what comes is counted.
 * @throws ZipFault for a file that is no zip or is broken, one beyond the bounds, one whose names are not plain paths
 *   or come twice, and one whose list of contents is another than its contents
 */
export function unzipWithin(packed: Uint8Array, bounds: ZipBounds): Map<string, Uint8Array> {
	const entries = new Map<string, Entry>();
	let total = 0;
	const unzip = new Unzip((file: UnzipFile) => {
		checkName(file.name, entries);
		if (entries.size >= bounds.entries) throw new ZipFault('too-many');
		const entry = new Entry(file.name, bounds.entryBytes);
		entries.set(file.name, entry);
		file.ondata = (error, piece, isLast) => {
			// What is thrown below comes back here as an error of the unpacking.
			if (error) throw (error as unknown) instanceof ZipFault ? error : new ZipFault('damaged', file.name);
			entry.add(piece, isLast);
			total += piece.length;
			if (total > bounds.totalBytes) throw new ZipFault('too-large');
		};
		file.start();
	});
	unzip.register(UnzipInflate);
	try {
		for (let from = 0; from < packed.length; from += PIECE_BYTES)
			unzip.push(packed.subarray(from, from + PIECE_BYTES), from + PIECE_BYTES >= packed.length);
		checkContents(packed, [...entries.keys()]);
	} catch (error) {
		throw error instanceof ZipFault ? error : new ZipFault('damaged');
	}
	for (const [name, { isWhole }] of entries) if (!isWhole) throw new ZipFault('damaged', name);
	return new Map([...entries].map(([name, entry]) => [name, entry.bytes()]));
}

/** Other programs go by the list at the end (APPNOTE 4.3.12): it must name the same entries. */
function checkContents(packed: Uint8Array, found: readonly string[]): void {
	const listed: string[] = [];
	unzipSync(packed, {
		filter: ({ name }) => {
			listed.push(name);
			return false;
		}
	});
	if (listed.length !== found.length || listed.some((name, i) => name !== found[i])) throw new ZipFault('unlisted');
}
