/** `npm run verify -- bundle.zip`: whether every figure of a report follows from the loads beside it. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { verifyBundle } from '$core/report/verify';

const [path] = process.argv.slice(2);
if (!path) {
	console.error('Name the bundle: npm run verify -- report.zip');
	process.exit(2);
}

let files: Record<string, Uint8Array>;
try {
	files = unzipSync(readFileSync(path));
} catch (error) {
	console.error(`${path} cannot be read as a zip: ${(error as Error).message}. Download the bundle again.`);
	process.exit(2);
}
const own = new Map(Object.entries(files).filter(([name]) => !name.endsWith('/')));
const found = verifyBundle(own, (bytes) => createHash('sha256').update(bytes).digest('hex'));
for (const { kind, file, what, found: is, expected } of found.faults)
	console.log(`${kind.padEnd(10)} ${file}: ${what}${expected || is ? `: found “${is}”, should be “${expected}”` : ''}`);
for (const { of, version } of found.otherRules)
	console.log(
		of === 'recipe'
			? `note       scores were made by the recipe ${version}: they are not computed anew`
			: `note       judged by the rules ${version}: middle figures are computed anew, shifts and verdicts stand as they were`
	);
for (const what of found.today) console.log(`today      ${what}`);
console.log(`${found.files} files, ${found.figures} figures computed anew, ${found.faults.length} faults`);
process.exitCode = found.faults.length ? 1 : 0;
