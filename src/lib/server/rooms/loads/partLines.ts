/** The parts of a load's sheet, each in one line of finding. */
import { METRICS } from '$core/metrics/catalogue';
import type { LoadRecord } from '$core/load/record/record';
import { ownerOf } from '$core/load/requests/owners';
import { formatBytes, formatDuration } from '$core/wording/format';
import type { IdentityView } from './identityView';
import type { TapView } from './tapView';
import type { OutageView } from './outageView';
import { PART_WORDS } from '$core/wording/parts';

export type LoadPartId =
	| 'figures'
	| 'steps'
	| 'picture'
	| 'frames'
	| 'weight'
	| 'thread'
	| 'held'
	| 'outages'
	| 'taps'
	| 'identity'
	| 'checks'
	| 'facts'
	| 'circumstances';

export interface LoadPartView {
	id: LoadPartId;
	finding: string;
	isTrouble: boolean;
}

const say = PART_WORDS.say.bind(PART_WORDS);
const part = (id: LoadPartId, finding: string, isTrouble = false): LoadPartView => ({ id, finding, isTrouble });

/** What further loads of the same page showed. */
export interface LoadChecks {
	cdnHosts: readonly string[];
	outages: OutageView;
	identity: IdentityView;
	taps: TapView;
}

/** In the order of the sheet; parts that have nothing to show are left out. */
export function loadParts(record: LoadRecord, hasPicture: boolean, checks: LoadChecks): LoadPartView[] {
	const { cdnHosts } = checks;
	const { steps, frames, longTasks, page, source } = record;
	return [
		part('weight', weightOf(record, cdnHosts)),
		...(frames.length ? [part('frames', say('loadpart.frames', { n: frames.length, ms: finishedOf(record) }))] : []),
		...(longTasks.length ? [part('thread', threadOf(record))] : []),
		...(source === 'lab' ? [heldPart(record)] : []),
		...(source === 'lab' ? checkParts(checks) : []),
		...(hasPicture ? [part('picture', pictureOf(record))] : []),
		...(steps.length ? [stepsPart(record)] : []),
		...(page ? [factsPart(page)] : []),
		part('figures', figuresOf(record)),
		part('circumstances', [record.conditions?.name, record.environment.browser].filter(Boolean).join(', '))
	];
}

function weightOf(record: LoadRecord, cdnHosts: readonly string[]): string {
	const requests = record.requests.filter(({ during }) => during === 'load');
	const siteHost = new URL(record.finalUrl || record.url).host;
	const sizeOf = (list: typeof requests) => list.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0);
	const foreign = requests.filter(({ host }) => ownerOf(host, siteHost, cdnHosts).kind === 'third-party');
	const bytes = sizeOf(requests);
	return say('loadpart.weight', {
		bytes: formatBytes(bytes),
		n: requests.length,
		share: bytes ? Math.round((sizeOf(foreign) / bytes) * 100) : 0
	});
}

function finishedOf({ frames, figures }: LoadRecord): string {
	return formatDuration(figures.vc ?? frames.at(-1)!.atMs);
}

function threadOf({ longTasks }: LoadRecord): string {
	const longest = Math.max(...longTasks.map(({ durationMs }) => durationMs));
	return say('loadpart.thread', { n: longTasks.length, ms: formatDuration(longest) });
}

/** Less script after an interaction is its handlers' own (house). */
const NOTABLE_SCRIPT_MS = 50;

function heldPart({ heldBack, postponed }: LoadRecord): LoadPartView {
	const late = postponed ?? heldBack;
	if (!late) return part('held', say('loadpart.held.not-asked'));
	const kind = postponed ? 'postponed' : 'held-back';
	if (!late.requests && late.scriptMs < NOTABLE_SCRIPT_MS) return part('held', say('loadpart.held.nothing', { kind }));
	return part('held', say('loadpart.held.some', { n: late.requests, bytes: formatBytes(late.wireBytes), kind }), true);
}

export type Check = 'outages' | 'taps' | 'identity';

/** Checks that nobody has asked for; of a load that came from a file none can be. */
export function openChecks({ source }: Pick<LoadRecord, 'source'>, checks: Omit<LoadChecks, 'cdnHosts'>): Check[] {
	if (source !== 'lab') return [];
	const { outages, taps, identity } = checks;
	const isOpen: Record<Check, boolean> = {
		outages: outages.services.length > 0 && !outages.waiting && !outages.results.length,
		taps: !taps.waiting && !taps.results.length,
		identity: identity.state !== 'known' && identity.state !== 'waiting'
	};
	return (Object.keys(isOpen) as Check[]).filter((check) => isOpen[check]);
}

/** A part for each check that was asked for; the others together in one line. */
function checkParts(checks: LoadChecks): LoadPartView[] {
	const open = openChecks({ source: 'lab' }, checks);
	const { outages, taps, identity } = checks;
	return [
		...(outages.services.length && !open.includes('outages') ? [outagesPart(outages)] : []),
		...(open.includes('taps') ? [] : [tapsPart(taps)]),
		...(open.includes('identity') ? [] : [identityPart(identity)]),
		...(open.length
			? [
					part(
						'checks',
						say('loadpart.checks', {
							list: open.map((check) => say(`loadpart.checks.${check}`, { n: outages.services.length })).join('; ')
						})
					)
				]
			: [])
	];
}

function tapsPart({ results }: TapView): LoadPartView {
	if (!results.length) return part('taps', say('loadpart.outages.open'));
	const works = results.filter(({ verdict }) => verdict === 'works').length;
	return part('taps', say('loadpart.taps', { works, n: results.length }), works < results.length);
}

function identityPart({ state, differences }: IdentityView): LoadPartView {
	if (state !== 'known') return part('identity', say('loadpart.identity.open'));
	return part('identity', say('loadpart.identity.known', { n: differences.length }), differences.length > 0);
}

function outagesPart({ results }: OutageView): LoadPartView {
	const [worst] = results;
	if (!worst) return part('outages', say('loadpart.outages.open'));
	const { service, how, isBroken, startLater } = worst;
	const effect = effectOf(isBroken, startLater);
	if (effect === 'none') return part('outages', say('loadpart.outages.calm'));
	return part(
		'outages',
		say('loadpart.outages.worst', { service, how, effect, later: formatDuration(startLater ?? 0) }),
		true
	);
}

/** A later start of rendering is told from here on (house). */
const NOTABLE_LATER_MS = 500;

function effectOf(isBroken: boolean, startLater: number | null): 'broken' | 'later' | 'none' | 'unknown' {
	if (isBroken) return 'broken';
	if (startLater === null) return 'unknown';
	return startLater >= NOTABLE_LATER_MS ? 'later' : 'none';
}

/** Smaller shifts are not seen (house). */
const SEEN_SHIFT = 0.0005;

function pictureOf({ lcp, shifts }: LoadRecord): string {
	const seen = shifts.filter(({ value }) => value >= SEEN_SHIFT).length;
	return say('loadpart.picture', { lcp: lcp ? 'yes' : 'no', shifts: seen });
}

function stepsPart({ steps }: LoadRecord): LoadPartView {
	const failed = steps.find(({ status }) => status === 'failed');
	if (failed) return part('steps', failed.message ?? `Step ${failed.number} failed`, true);
	return part('steps', say('loadpart.steps.ok', { n: steps.length }));
}

function factsPart({ consoleErrors, overlay, emptySlots }: NonNullable<LoadRecord['page']>): LoadPartView {
	const finding = say('loadpart.facts', {
		errors: consoleErrors.length,
		overlay: overlay ? 'yes' : 'no',
		slots: emptySlots.length
	});
	return part('facts', finding, consoleErrors.length > 0);
}

function figuresOf({ figures, firstVisit }: LoadRecord): string {
	const n = METRICS.filter(({ id }) => figures[id] !== null).length;
	return say('loadpart.figures', { n, repeat: firstVisit ? 'yes' : 'no' });
}
