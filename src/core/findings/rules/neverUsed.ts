/** Scripts of which much never ran, and style of which much matched nothing, in this load (coverage). */
import { compressionOf } from '../../load/requests/delivery';
import type { RequestRecord } from '../../load/record/record';
import { packedAs, type BodyFacts } from '../bodyFacts';
import type { RuleId } from '../finding';
import { NO_COST } from '../finding';
import { addressResource, seenIn, wireOf } from '../inspection';
import type { FindingRule } from '../rule';

/** House. */
const MOST_SCRIPT = 0.3;
const MOST_STYLE = 0.5;

const unusedRule =
	(rule: RuleId, type: string, most: number): FindingRule =>
	({ requests, leastBytes, factsOf }) =>
		requests
			.filter((request) => request.type === type && request.unused !== null && request.decodedBytes)
			.flatMap((request) => {
				const share = Math.min(1, request.unused! / request.decodedBytes!);
				const bytes = wireOf(request, request.unused!);
				if (share <= most || bytes < leastBytes) return [];
				return [
					{
						rule,
						resource: addressResource(request.url),
						cost: { ...NO_COST, bytes },
						evidence: seenIn(request),
						saving: cutOf(request, factsOf(request)),
						limit: { most, unit: 'share' as const },
						values: { share, bytes }
					}
				];
			});

/** Saved by really cutting what no audited page used, in the coding that the host uses; null where not known. */
function cutOf(request: RequestRecord, facts: BodyFacts | null): { bytes: number } | null {
	if (!facts?.packed || !facts.cut) return null;
	const { encoding } = compressionOf(request);
	return { bytes: Math.max(0, packedAs(facts.packed, encoding) - packedAs(facts.cut, encoding)) };
}

export const scriptNeverRun = unusedRule('script-never-run', 'script', MOST_SCRIPT);
export const styleNeverMatched = unusedRule('style-never-matched', 'stylesheet', MOST_STYLE);
