/** Forms of audits and of the worklist. */
import * as v from 'valibot';
import { AuditInput } from '$core/audits/audit';
import { parsed } from '../../base/parse';
import { Figure, linesOf, Text, Texts } from '../../http/fields';
import type { Typed } from '../../http/form';

export const AuditFields = v.object({
	clientId: Text,
	pages: Texts,
	/** One a line. */
	urls: Text,
	conditions: Texts,
	loads: Figure
});

/** @throws Invalid with what is wrong at its field */
export function auditFrom({ clientId, pages, urls, conditions, loads }: Typed<typeof AuditFields>): AuditInput {
	return parsed(AuditInput, {
		clientId: Number(clientId) || null,
		pages: pages.map(Number),
		urls: linesOf(urls).map((line) => (/^https?:\/\//i.test(line) ? line : `https://${line}`)),
		conditions,
		loads: loads ?? NaN
	});
}

export const FindingFields = v.object({ finding: Texts, state: Text, owner: Text, note: Text, question: Text });
