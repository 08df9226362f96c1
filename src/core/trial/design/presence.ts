/** What must be there, or gone, in the loads of an arm or a stage: that a change took effect. */
import * as v from 'valibot';
import { isMatching } from '../../load/requests/pattern';
import type { LoadRecord } from '../../load/record/record';

export const PRESENCE_KINDS = ['host', 'address', 'header', 'selector', 'text'] as const;
export type PresenceKind = (typeof PRESENCE_KINDS)[number];

const MOST_CHECKS = 20;

export const PresenceCheck = v.object({
	/**
	 * `host`: a request to it; `address`: a request to it, `*` stands for anything; `header`: of the document's answer,
	 * "name" or "name: part of its value"; `selector`: an element of the settled page; `text`: among its words.
	 */
	kind: v.picklist(PRESENCE_KINDS, `A check is for one of: ${PRESENCE_KINDS.join(', ')}.`),
	value: v.pipe(
		v.string('Say what is to be found.'),
		v.trim(),
		v.nonEmpty('Say what is to be found.'),
		v.maxLength(300, 'At most 300 characters.')
	),
	wanted: v.optional(v.picklist(['present', 'gone'], 'Something is wanted “present” or “gone”.'), 'present')
});
export type PresenceCheck = v.InferOutput<typeof PresenceCheck>;

export const PresenceChecks = v.pipe(
	v.array(PresenceCheck, 'Checks are a list.'),
	v.maxLength(MOST_CHECKS, `At most ${MOST_CHECKS} checks.`)
);

/** "gone host parlour-bell.test": as it is typed, one a line. */
export function presenceLine({ kind, value, wanted }: PresenceCheck): string {
	return `${wanted === 'gone' ? 'gone ' : ''}${kind} ${value}`;
}

/** @param text one check a line @throws Error that names the line that cannot be read */
export function parsePresence(text: string): PresenceCheck[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line) => {
			const found = /^(gone\s+)?(\w+)\s+(.+)$/.exec(line);
			const kind = PRESENCE_KINDS.find((name) => name === found?.[2]);
			if (!found || !kind)
				throw new Error(
					`“${line}” is no check. Write for example “host chat.example.test”, “gone selector #banner” or “header x-cache: HIT”.`
				);
			return { kind, value: found[3]!, wanted: found[1] ? 'gone' : 'present' };
		});
}

/** Whether a load shows what is wanted; null when the record cannot tell. */
export function meetsCheck({ kind, value, wanted }: PresenceCheck, record: LoadRecord): boolean | null {
	const isThere = isPresent(kind, value, record);
	return isThere === null ? null : isThere === (wanted === 'present');
}

function isPresent(kind: PresenceKind, value: string, record: LoadRecord): boolean | null {
	const duringLoad = record.requests.filter(({ during }) => during === 'load');
	switch (kind) {
		case 'host':
			return duringLoad.some(({ host }) => host.replace(/:\d+$/, '') === value.toLowerCase());
		case 'address':
			return duringLoad.some(({ url }) => isMatching(url, value));
		case 'header':
			return hasHeader(record, value);
		case 'text':
			return record.page === null ? null : record.page.text.toLowerCase().includes(value.toLowerCase());
		case 'selector': {
			const found = record.selectors.find(({ selector }) => selector === value);
			return found?.count == null ? null : found.count > 0;
		}
	}
}

/** Header fields of the page's own answer, names in any case (RFC 9110, section 5.1). */
function hasHeader({ requests, finalUrl }: LoadRecord, wanted: string): boolean | null {
	const document = requests.find(({ type, url }) => type === 'document' && url === finalUrl);
	if (!document) return null;
	const [name = '', ...rest] = wanted.split(':');
	const part = rest.join(':').trim().toLowerCase();
	return document.responseHeaders.some(
		([field, value]) => field.toLowerCase() === name.trim().toLowerCase() && value.toLowerCase().includes(part)
	);
}

/** Selectors that the lab must count for some checks. */
export function selectorsOf(checks: readonly PresenceCheck[]): string[] {
	return checks.filter(({ kind }) => kind === 'selector').map(({ value }) => value);
}
