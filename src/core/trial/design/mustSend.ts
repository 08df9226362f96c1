/** Requests that must still leave: counting, consent, ads, orders. */
import * as v from 'valibot';
import { isMatching } from '../../load/requests/pattern';
import type { LoadRecord } from '../../load/record/record';

const MOST_LISTED = 30;

export const MustSend = v.object({
	/** As people call it: "Visit counting". */
	name: v.pipe(
		v.string('Name it.'),
		v.trim(),
		v.nonEmpty('Name it.'),
		v.maxLength(60, 'A name has at most 60 characters.')
	),
	/** Of its address; `*` stands for anything. */
	pattern: v.pipe(
		v.string('Write the address.'),
		v.trim(),
		v.nonEmpty('Write the address.'),
		v.maxLength(300, 'At most 300 characters.')
	)
});
export type MustSend = v.InferOutput<typeof MustSend>;

export const MustSendList = v.pipe(
	v.array(MustSend, 'Give a list.'),
	v.maxLength(MOST_LISTED, `At most ${MOST_LISTED} requests.`)
);

/** When a wanted request left in one load, ms since the navigation; null when it did not. */
export interface Sending {
	whileLoading: number | null;
	/** Once the page had settled: by itself, or after an input. */
	late: number | null;
}

export function sendingsOf(list: readonly MustSend[], { requests }: LoadRecord): Sending[] {
	return list.map(({ pattern }) => {
		const own = requests.filter(({ url, failed }) => failed === null && isMatching(url, pattern));
		const first = (during: 'load' | 'late') => {
			const starts = own
				.filter((item) => (item.during === 'load') === (during === 'load'))
				.map(({ startMs }) => startMs);
			return starts.length ? Math.min(...starts) : null;
		};
		return { whileLoading: first('load'), late: first('late') };
	});
}

/** As it is typed, one a line. */
export const mustSendLines = (list: readonly MustSend[]): string =>
	list.map(({ name, pattern }) => `${name}: ${pattern}`).join('\n');

/** @param text "Visit counting: *stilewatch.test/hit*", one a line @throws Error that names the line */
export function parseMustSend(text: string): MustSend[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line) => {
			const found = /^([^:]+):\s*(.+)$/.exec(line);
			if (!found)
				throw new Error(
					`“${line}” cannot be read. Write a name and an address, for example “Counting: *stats.example.test/*”.`
				);
			return { name: found[1]!.trim(), pattern: found[2]! };
		});
}

export type SendFate = 'sent' | 'late' | 'after-input' | 'never' | 'unknown';

export interface SendState {
	name: string;
	/** Of the loads that were asked, those in which it left while the page loaded. */
	sent: number;
	loads: number;
	fate: SendFate;
	/** How much later than while loading it left by itself, ms since the navigation; null where it did not. */
	lateMs: number | null;
}

/**
 * What became of each request that must leave, in one variant under some conditions.
 * @param rounds of its counted loads @param patient of the load that waited on @param nudged of the one with an input
 */
export function sendStates(
	list: readonly MustSend[],
	rounds: readonly (readonly Sending[])[],
	patient: readonly Sending[] | null,
	nudged: readonly Sending[] | null
): SendState[] {
	return list.map(({ name }, i) => {
		const sent = rounds.filter((load) => load[i]?.whileLoading != null).length;
		const lateMs = patient?.[i]?.late ?? null;
		return { name, sent, loads: rounds.length, fate: fateOf(sent, rounds.length, lateMs, nudged?.[i]?.late), lateMs };
	});
}

function fateOf(sent: number, loads: number, lateMs: number | null, nudged: number | null | undefined): SendFate {
	if (loads > 0 && sent >= loads / 2) return 'sent';
	if (lateMs !== null) return 'late';
	if (nudged != null) return 'after-input';
	return loads === 0 || nudged === undefined ? 'unknown' : 'never';
}

/** Requests that the baseline sends while it loads and the variant does not. */
export function brokenSends(baseline: readonly SendState[], arm: readonly SendState[]): SendState[] {
	return arm.filter((state, i) => baseline[i]?.fate === 'sent' && state.fate !== 'sent');
}
