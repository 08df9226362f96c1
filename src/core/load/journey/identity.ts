/** Whether a page is served the same to a test as to a visitor: asked again as an ordinary browser. */
import { wordLikeness } from '../../stats/wordLikeness';
import type { LoadRecord } from '../record/record';

/**
 * The user agent of an ordinary Chrome on a device of that kind, with the version that Chromium has here (the reduced
 * form that Chromium itself sends: chromium.org, "User-Agent Reduction").
 */
export function visitorAgent(isMobile: boolean, major: string): string {
	const system = isMobile ? 'Linux; Android 10; K' : 'X11; Linux x86_64';
	return `Mozilla/5.0 (${system}) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/${major}.0.0.0${isMobile ? ' Mobile' : ''} Safari/537.36`;
}

export type IdentityCode =
	'failed' | 'title' | 'words' | 'document' | 'hosts-gone' | 'hosts-new' | 'requests' | 'bytes';

export interface IdentityDifference {
	code: IdentityCode;
	/** As the lab was served, and as a visitor is; in the unit of its kind. */
	lab: string | number;
	visitor: string | number;
}

/** Beyond these two loads of one page seldom differ (house). */
const WORDS_ALIKE = 0.95;
const DOCUMENT_SHARE = 0.02;
const BYTES_SHARE = 0.05;
const REQUESTS = 2;

/** What was served otherwise to a visitor. Two single loads: what differs may be chance, and is worth a look. */
export function identityDifferences(lab: LoadRecord, visitor: LoadRecord): IdentityDifference[] {
	if (lab.status !== visitor.status)
		return [{ code: 'failed', lab: lab.failure?.message ?? 'loaded', visitor: visitor.failure?.message ?? 'loaded' }];
	const [ours, theirs] = [lab, visitor].map(servedOf) as [Served, Served];
	const found: (IdentityDifference | null)[] = [
		unlike('title', ours.title, theirs.title, (a, b) => a !== b),
		unlike('words', wordLikeness(ours.words, theirs.words) ?? 1, 1, (likeness) => likeness < WORDS_ALIKE),
		unlike('document', ours.document, theirs.document, (a, b) => isApart(a, b, DOCUMENT_SHARE)),
		hostsOnly('hosts-gone', ours.hosts, theirs.hosts),
		hostsOnly('hosts-new', theirs.hosts, ours.hosts),
		unlike('requests', ours.requests, theirs.requests, (a, b) => Math.abs(a - b) > REQUESTS),
		unlike('bytes', ours.bytes, theirs.bytes, (a, b) => isApart(a, b, BYTES_SHARE))
	];
	return found.filter((item) => item !== null);
}

interface Served {
	title: string;
	words: string;
	/** Decoded bytes of the page's own answer. */
	document: number;
	hosts: string[];
	requests: number;
	bytes: number;
}

function servedOf({ page, requests, finalUrl }: LoadRecord): Served {
	const duringLoad = requests.filter(({ during }) => during === 'load');
	return {
		title: page?.title ?? '',
		words: page?.text ?? '',
		document: duringLoad.find(({ type, url }) => type === 'document' && url === finalUrl)?.decodedBytes ?? 0,
		hosts: [...new Set(duringLoad.map(({ host }) => host))].sort(),
		requests: duringLoad.length,
		bytes: duringLoad.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0)
	};
}

function unlike<Value extends string | number>(
	code: IdentityCode,
	lab: Value,
	visitor: Value,
	isUnlike: (a: Value, b: Value) => boolean
): IdentityDifference | null {
	return isUnlike(lab, visitor) ? { code, lab, visitor } : null;
}

function isApart(a: number, b: number, share: number): boolean {
	return Math.abs(a - b) > share * Math.max(a, b);
}

/** Hosts that one load asked and the other did not. */
function hostsOnly(
	code: 'hosts-gone' | 'hosts-new',
	some: readonly string[],
	others: readonly string[]
): IdentityDifference | null {
	const only = some.filter((host) => !others.includes(host)).join(', ');
	if (!only) return null;
	return code === 'hosts-gone' ? { code, lab: only, visitor: '' } : { code, lab: '', visitor: only };
}
