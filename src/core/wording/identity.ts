/** What was served otherwise to a visitor, in words. */
import type { IdentityDifference } from '../load/journey/identity';
import { formatBytes } from './format';

export function wordIdentity({ code, lab, visitor }: IdentityDifference): string {
	switch (code) {
		case 'failed':
			return `To the lab: ${lab} To a visitor: ${visitor}`;
		case 'title':
			return `The title is “${lab}” for the lab and “${visitor}” for a visitor.`;
		case 'words':
			return `The pages share ${Math.round(Number(lab) * 100)}\u00a0% of their words.`;
		case 'document':
			return `The page’s own HTML has ${formatBytes(Number(lab))} for the lab and ${formatBytes(Number(visitor))} for a visitor.`;
		case 'hosts-gone':
			return `Only the lab’s page asks ${lab}.`;
		case 'hosts-new':
			return `Only the visitor’s page asks ${visitor}.`;
		case 'requests':
			return `${lab} requests for the lab, ${visitor} for a visitor.`;
		case 'bytes':
			return `${formatBytes(Number(lab))} for the lab, ${formatBytes(Number(visitor))} for a visitor.`;
	}
}
