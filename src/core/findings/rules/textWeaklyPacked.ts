/** Text that a host sends with gzip where Brotli saves much (RFC 7932). */
import { compressionOf } from '../../load/requests/delivery';
import { sentBytes } from '../bodyFacts';
import { hostTextFindings } from '../hostText';
import type { FindingRule } from '../rule';

/** House. */
const LEAST_SHARE = 0.15;
const WEAK = new Set(['gzip', 'deflate']);

export const textWeaklyPacked: FindingRule = (inspection) =>
	hostTextFindings('text-weakly-packed', inspection, (request) => {
		const packed = inspection.factsOf(request)?.packed;
		if (!packed || !WEAK.has(compressionOf(request).encoding ?? '')) return null;
		const sent = sentBytes(request);
		const saved = sent - packed.brotli;
		return saved > sent * LEAST_SHARE ? { sent, saved } : null;
	});
