/** Errors in the console of the page. */
import { NO_COST, NO_EVIDENCE } from '../finding';
import { pageResource } from '../inspection';
import type { FindingRule } from '../rule';

const MOST_LENGTH = 160;
/** Addresses and numbers change from load to load. */
const keyOf = (words: string) =>
	words
		.replace(/https?:\/\/\S+/g, '#')
		.replace(/\d+/g, '#')
		.slice(0, MOST_LENGTH);

export const consoleError: FindingRule = ({ record }) => {
	// What did not come is told by `broken-request`, address and all.
	const own = (record.page?.consoleErrors ?? []).filter((words) => !words.startsWith('Failed to load resource'));
	const errors = new Map(own.map((words) => [keyOf(words), words]));
	return [...errors].map(([key, words]) => ({
		rule: 'console-error' as const,
		resource: { ...pageResource(key), name: words.slice(0, MOST_LENGTH) },
		cost: NO_COST,
		evidence: NO_EVIDENCE,
		saving: null,
		limit: { most: 0, unit: 'count' as const },
		values: {}
	}));
};
