/** Settings from the environment, read once, checked at the door. */
import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseHostMap, parseHostTimes, type HostRule, type HostTimes } from '$core/load/hostMap';

/** Where Zafra's own files lie; every start command runs there. */
export const ROOT = process.cwd();

export interface Settings {
	dataFolder: string;
	hostMap: HostRule[];
	/** What reaching some hosts costs beyond the line's own. */
	hostTimes: HostTimes[];
	/** Public key hashes that the lab trusts beside the usual ones. */
	trustedKeys: string[];
	startRunner: boolean;
	/** Processes beside web and lab that work for loads: the simulated web. */
	helpers: number[];
	version: string;
}

/** @throws Error in words for a setting that cannot be read */
export function readSettings(environment: NodeJS.ProcessEnv = process.env): Settings {
	const runner = environment.ZAFRA_RUNNER || 'on';
	if (runner !== 'on' && runner !== 'off') throw new Error(`ZAFRA_RUNNER must be “on” or “off”, not “${runner}”.`);
	const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { version: string };
	return {
		dataFolder: resolve(environment.ZAFRA_DATA || 'data'),
		hostMap: parseHostMap(environment.ZAFRA_HOST_MAP),
		hostTimes: parseHostTimes(environment.ZAFRA_HOST_TIMES),
		trustedKeys: (environment.ZAFRA_TRUSTED_KEYS ?? '').split(',').filter(Boolean),
		startRunner: runner === 'on',
		helpers: (environment.ZAFRA_HELPERS ?? '')
			.split(',')
			.map(Number)
			.filter((pid) => pid > 0),
		version
	};
}
