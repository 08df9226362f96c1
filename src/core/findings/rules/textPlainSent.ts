/** Text that a host sends without a content coding (RFC 9110, section 8.4), and what gzip would save of it. */
import { compressionOf } from '../../load/requests/delivery';
import { hostTextFindings } from '../hostText';
import type { FindingRule } from '../rule';

export const textPlainSent: FindingRule = (inspection) =>
	hostTextFindings('text-plain-sent', inspection, (request) => {
		const { encoding, wouldSave } = compressionOf(request);
		return encoding === null && wouldSave ? { sent: request.wireBytes ?? 0, saved: wouldSave } : null;
	});
