/**
 * `npm run verify -- bundle.zip [--key KEY]`: whether every figure of a report follows from the loads beside it, and
 * whether it is as its agency signed it. Ends with 0 verified, 1 forged, 3 not verifiable here; 2 for a call that says
 * nothing to check.
 */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { unzipWithin, ZipFault } from '$core/formats/unzip';
import { keyInGroups } from '$core/report/seal';
import { verifyBundle, type Rules, type Tools, type Verification } from '$core/verification/verify';
import { drawingVersion, wholeReport } from '../src/lib/report/whole';
import { isSignedBy } from '../src/lib/server/rooms/reports/signing';

const EXIT = { verified: 0, forged: 1, unusable: 2, unverifiable: 3 } as const;
const BOUNDS = { entries: 20_000, entryBytes: 128_000_000, totalBytes: 1_000_000_000 };
const USAGE = 'Name the bundle: npm run verify -- report.zip [--key KEY]';

function end(words: string, code: number): never {
	console.error(words);
	process.exit(code);
}

function readArguments(): { path: string; pinned: string | null } {
	try {
		const { values, positionals } = parseArgs({ options: { key: { type: 'string' } }, allowPositionals: true });
		const pinned = values.key?.replace(/\s+/g, '') ?? null;
		if (pinned !== null && !/^[\w-]{43}$/.test(pinned))
			end('A key has 43 letters, digits, - and _. Copy it from the foot of the shared report.', EXIT.unusable);
		if (positionals.length !== 1) end(USAGE, EXIT.unusable);
		return { path: positionals[0]!, pinned };
	} catch {
		return end(USAGE, EXIT.unusable);
	}
}

function readBundle(path: string): Map<string, Uint8Array> {
	let packed: Uint8Array;
	try {
		packed = readFileSync(path);
	} catch (error) {
		return end(`${path} cannot be read: ${(error as Error).message}.`, EXIT.unusable);
	}
	try {
		return unzipWithin(packed, BOUNDS);
	} catch (error) {
		const { code, entry } = error as ZipFault;
		// A zip that hides a file, or has two of one name, was made so; one that is cut off was not received whole.
		if (code === 'damaged') end(`${path} is no zip, or not whole. Download the bundle again.`, EXIT.unusable);
		console.log(`zip        ${entry || path}: ${ZIP_WORDS[code]}`);
		return end('Forged: this zip is not one that Zafra made.', EXIT.forged);
	}
}

const ZIP_WORDS: Record<ZipFault['code'], string> = {
	damaged: 'cannot be read',
	'too-many': 'has more files than any bundle',
	'entry-too-large': 'is larger than any file of a bundle',
	'too-large': 'unpacks to more than any bundle',
	'odd-name': 'is a name that no file of a bundle has',
	double: 'is there twice',
	unlisted: 'is another zip than its own list says'
};

const RULE_WORDS: Record<Rules['of'], (version: string) => string> = {
	judge: (version) =>
		`judged by the rules ${version}: medians are computed anew, shifts and verdicts stand as they were`,
	recipe: (version) => `scores were made by the recipe ${version}: they are not computed anew`,
	drawing: (version) => `drawn by another version (${version}): the page is held by its signature alone`
};

function printVerdict(
	{ faults, otherRules, today, figures, files, key, end: how }: Verification,
	pinned: string | null
): void {
	for (const { kind, file, what, found, expected } of faults)
		console.log(
			`${kind.padEnd(10)} ${file}: ${what}${expected || found ? `: found “${found}”, should be “${expected}”` : ''}`
		);
	for (const { of, version } of otherRules) console.log(`note       ${RULE_WORDS[of](version)}`);
	for (const what of today) console.log(`today      ${what}`);
	if (key) console.log(`key        ${keyInGroups(key)}${pinned ? ', as given' : ''}`);
	console.log(`${files} files, ${figures} figures computed anew, ${faults.length} faults`);
	console.log(ENDS[how](pinned !== null, key !== null));
}

const ENDS: Record<Verification['end'], (isPinned: boolean, isSigned: boolean) => string> = {
	verified: (isPinned) =>
		isPinned
			? 'Verified: every figure follows from the loads, and words and pictures are as this key signed them.'
			: 'Verified: every figure follows from the loads, and words and pictures are as the key above signed them. Compare it with the key at the foot of the shared report, or give that with --key.',
	forged: () => 'Forged: this is not what was made. What differs stands above.',
	unverifiable: (_, isSigned) =>
		`Not verifiable here: ${isSigned ? 'it was made by rules that this Zafra has not' : 'nobody signed it, so that its words and pictures can have been changed'}. No figure that could be computed anew differs.`
};

const sha256 = (bytes: Uint8Array | string) => createHash('sha256').update(bytes).digest('hex');
const { path, pinned } = readArguments();
const tools: Tools = {
	sha256,
	isSigned: isSignedBy,
	pinned,
	drawing: { version: drawingVersion(sha256), draw: wholeReport }
};
const found = verifyBundle(readBundle(path), tools);
printVerdict(found, pinned);
process.exitCode = EXIT[found.end];
