/** Which conditions measure alike: results are comparable only under equal ones. */
import type { Conditions } from './conditions';

/**
 * Everything that changes what is measured, as text: equal for conditions that measure alike, whatever they are
 * called.
 */
export function conditionsFingerprint(conditions: Conditions): string {
	const { id: _id, name: _name, summary: _summary, ...measured } = conditions;
	// What is not there is not written: versions from before a field existed keep their name.
	return JSON.stringify(sorted(measured));
}

function sorted(value: unknown): unknown {
	if (Array.isArray(value)) return value.map(sorted);
	if (typeof value !== 'object' || value === null) return value;
	const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
	return Object.fromEntries(entries.map(([name, one]) => [name, sorted(one)]));
}
