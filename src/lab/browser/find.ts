/** Where Chromium is on this machine. */
import { accessSync, constants } from 'node:fs';
import { delimiter, join } from 'node:path';

const NAMES = ['chromium', 'chromium-browser'];

/** Path of a Chromium that can be run, or null. ZAFRA_CHROMIUM wins; then the PATH; then Debian's place. */
export function findChromium(environment: NodeJS.ProcessEnv = process.env): string | null {
	const named = environment.ZAFRA_CHROMIUM;
	if (named) return isRunnable(named) ? named : null;
	const folders = [...(environment.PATH ?? '').split(delimiter).filter(Boolean), '/usr/bin'];
	for (const folder of folders)
		for (const name of NAMES) if (isRunnable(join(folder, name))) return join(folder, name);
	return null;
}

function isRunnable(path: string): boolean {
	try {
		accessSync(path, constants.X_OK);
		return true;
	} catch {
		return false;
	}
}
