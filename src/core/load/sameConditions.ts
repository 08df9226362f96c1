/** Which conditions measure alike: results are comparable only under equal ones. */
import type { Conditions } from './conditions';

/**
 * Everything that changes what is measured, as text: equal for conditions that measure alike, whatever they are
 * called.
 */
export function conditionsFingerprint(conditions: Conditions): string {
	const { device, network, place, cache, input, block, headers, cookies, hostMap, authentication, capMs, quietMs } =
		conditions;
	return JSON.stringify(
		sorted({ device, network, place, cache, input, block, headers, cookies, hostMap, authentication, capMs, quietMs })
	);
}

function sorted(value: unknown): unknown {
	if (Array.isArray(value)) return value.map(sorted);
	if (typeof value !== 'object' || value === null) return value;
	const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
	return Object.fromEntries(entries.map(([name, one]) => [name, sorted(one)]));
}
