/** Cookies that are sent with static files, which need none (RFC 6265). */
import { group, sum } from 'd3-array';
import { NO_COST } from '../finding';
import { hostResource, seenIn } from '../inspection';
import type { FindingRule } from '../rule';

/** Of what is sent up with them (house). */
const MOST_SHARE = 0.1;
const STATIC = new Set(['image', 'font', 'stylesheet', 'script']);

export const cookieWeight: FindingRule = ({ asked, leastBytes }) => {
	const files = asked.filter(({ type, sentBytes }) => STATIC.has(type) && sentBytes !== undefined);
	return [...group(files, ({ host }) => host)].flatMap(([host, own]) => {
		const cookies = sum(own, ({ cookieBytes }) => cookieBytes ?? 0);
		const share =
			cookies /
			Math.max(
				1,
				sum(own, ({ sentBytes }) => sentBytes ?? 0)
			);
		// What goes up travels on the narrower half of the line: it counts from a fifth of the usual bytes.
		if (share <= MOST_SHARE || cookies * 5 < leastBytes) return [];
		return [
			{
				rule: 'cookie-weight' as const,
				resource: hostResource(host),
				cost: { ...NO_COST, bytes: cookies },
				evidence: seenIn(own[0]!),
				saving: { bytes: cookies },
				limit: { most: MOST_SHARE, unit: 'share' as const },
				values: { n: own.length, bytes: cookies, share }
			}
		];
	});
};
