/** Where Chromium is on this machine. */
import { accessSync, closeSync, constants, openSync, readSync } from 'node:fs';
import { basename, delimiter, join } from 'node:path';

const NAMES = ['chromium', 'chromium-browser'];

/** Path of a Chromium that can be run, or null. ZAFRA_CHROMIUM wins; then the PATH; then Debian's place. */
export function findChromium(environment: NodeJS.ProcessEnv = process.env): string | null {
	const named = environment.ZAFRA_CHROMIUM;
	if (named) return isRunnable(named) ? named : null;
	const folders = [...(environment.PATH ?? '').split(delimiter).filter(Boolean), '/usr/bin'];
	for (const folder of folders)
		for (const name of NAMES) if (isRunnable(join(folder, name))) return ownBinary(join(folder, name));
	return null;
}

/** A distribution's start script adds switches of its own: the binary behind it is taken where it can be found. */
function ownBinary(path: string): string {
	if (!isScript(path)) return path;
	const name = basename(path);
	const binary = join('/usr/lib', name, name);
	return isRunnable(binary) ? binary : path;
}

function isScript(path: string): boolean {
	const start = Buffer.alloc(2);
	try {
		const file = openSync(path, 'r');
		readSync(file, start, 0, 2, 0);
		closeSync(file);
	} catch {
		return false;
	}
	return start.toString('latin1') === '#!';
}

function isRunnable(path: string): boolean {
	try {
		accessSync(path, constants.X_OK);
		return true;
	} catch {
		return false;
	}
}
