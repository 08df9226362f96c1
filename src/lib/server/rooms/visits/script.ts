/** The visits' script as a site's visitors get it: its settings, then the program that is the same for all. */
import type { Db } from '../../base/db/connection';
import { sourceByKey } from './queries/sources';
import { secretOf } from './queries/store';
import { tokenOf } from './token';

/**
 * For V8, which else compiles each function when it is first called, on the page's main thread: with this line all are
 * compiled beside it, while the script arrives (half of the script's main thread on a slowed phone, measured). It must
 * be the first line; other browsers see a comment.
 */
export const COMPILE_ASIDE = '//# allFunctionsCalledOnLoad\n';

/** @returns null for a key that no site has */
export function scriptFor(
	main: Db,
	{ visits, key, program, now }: { visits: Db; key: string; program: string; now: number }
): string | null {
	const source = sourceByKey(main, key);
	if (!source) return null;
	const { sampling, timings, goals, handOver } = source.settings;
	const settings = {
		key,
		token: tokenOf(secretOf(visits), key, now),
		sampling,
		timings: timings.map(({ name }) => name),
		goals,
		handOver
	};
	return `${COMPILE_ASIDE}window.zafraVisits=${JSON.stringify(settings)};${program}`;
}
