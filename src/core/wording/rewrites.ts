/** What the lab changes of a page, in words: "parlour-bell.test taken out". */
import type { Rewrite } from '../rewrites/rewrite';
import type { Target } from '../rewrites/target';
import type { ReportedFindingKey } from './messages/findingsEs';
import { formatDuration } from './format';
import { findingWordsIn } from './reportWords';
import type { Language } from './words';

const MOST_LENGTH = 60;
const MOST_VALUE = 40;

export function wordRewrite(rewrite: Rewrite, language: Language = 'en'): string {
	const kind = rewrite.do === 'replace' ? rewrite.with : rewrite.do;
	const until = rewrite.do === 'delay' && rewrite.until ? `.${rewrite.until}` : '';
	return findingWordsIn(language).say(`rewrite.${kind}${until}` as ReportedFindingKey, {
		what: subjectOf(rewrite),
		later: rewrite.do === 'delay' ? formatDuration(rewrite.ms ?? 0) : '',
		size: sizeOf(rewrite) ?? 'none',
		format: rewrite.do === 'replace' ? (rewrite.format ?? 'own') : 'own',
		name: 'name' in rewrite ? rewrite.name : '',
		value: 'value' in rewrite && rewrite.value !== null ? rewrite.value.slice(0, MOST_VALUE) : 'none'
	});
}

function subjectOf(rewrite: Rewrite): string {
	if ('selector' in rewrite) return rewrite.selector;
	if (rewrite.do === 'compress' && rewrite.address === undefined) return 'text';
	return meant(rewrite);
}

function meant({ owner, host, address = '' }: Target): string {
	return owner ?? host ?? (address.split('/').filter(Boolean).at(-1) || address).slice(0, MOST_LENGTH);
}

function sizeOf(rewrite: Rewrite): string | null {
	return 'width' in rewrite && rewrite.width && rewrite.height ? `${rewrite.width} × ${rewrite.height}` : null;
}
