/** A reading is a block of loads: every page once a round, in an order by chance, those that were disturbed again. */
import { hostname } from 'node:os';
import type { Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord, MeasuredLoad } from '$core/load/record/record';
import { timingsIn } from '$core/compare/digest';
import { countedLoads } from '$core/trial/judge/counted';
import type { TrialLoad } from '$core/trial/types';
import { middleLoad } from '$core/compare/middleLoad';
import { seededRandom, shuffled } from '$core/stats/random';
import { CONTROL_URL } from '$core/watch/control';
import { hintsIn } from '$core/watch/history';
import { LATE_KINDS, type LateKind } from '$core/compare/late/facts';
import { figuresByMetric, timingKey, type Setting } from '$core/watch/reading';
import { troubleOf } from '$core/watch/trouble';
import { atPlaceOf } from '../clients/sites';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { findRecord, insertLoad } from '../loads/loads';
import { insertRequest } from '../loads/requested';
import { hasOpenJob, insertJob, PRIORITY, type Job } from '../../base/queue/jobs';
import { conditionsOfWatch } from './conditions';
import {
	deleteReading,
	endReading,
	figuresOfReading,
	figuresOfWatch,
	findReading,
	insertReading,
	openReading,
	readingsOfWatch,
	saveFigures,
	setExtended,
	type Reading,
	type StoredFigures
} from './queries/readings';
import { historiesFrom } from './readings';
import { findWatch, pagesOfWatch, type Watch, type WatchedPage } from './queries/watches';
import { checkVisitors } from './visitors';
import { visitorOfLoad, visitorOfPage } from './queries/visitors';
import {
	slotOfJob,
	type SlotRow,
	slotsOf,
	hashOfLoad,
	pruneLoads,
	insertReadingSlot,
	slotLoads,
	loadBefore,
	deleteQueued,
	hasLoads
} from './queries/blocks';
import { findLoad } from '../loads/view';
import { thawConditions, type NamedVersion } from '../conditions/view';

/** Of the control page: its own scatter comes into every page's figure. */
const CONTROL_TURNS = 2;

/** More loads of a page that may have moved, in the same reading: few cannot tell (simulated in bench/watch). */
const EXTRA_LOADS = 15;

const MOST_RETRIES = 2;

/** Fewer calm loads than this: disturbed ones are counted too, and marked. */
const LEAST_CALM = 3;

interface Slot {
	page: WatchedPage;
	conditions: Conditions;
	round: number;
	turn: number;
	/** Outside the rounds: to see what comes late. */
	late: LateKind | null;
}

/** Queue a block. @returns its number @throws NotPossible while one is open, or without pages or conditions */
export function requestReading(
	db: Db,
	watch: Watch,
	{ why, plannedAt = nowIso(), missed = 0 }: { why: 'schedule' | 'demand'; plannedAt?: string; missed?: number }
): number {
	if (openReading(db, watch.id)) throw new NotPossible(409, 'A reading of this is under way: wait until it has ended.');
	const pages = pagesOfWatch(db, watch.id).filter(({ endedAt }) => endedAt === null);
	const conditions = conditionsOfWatch(db, watch);
	if (!conditions.length)
		throw new NotPossible(409, 'The conditions of this watch were deleted: choose others in its settings.');
	// Before anything is queued: one that is gone is told.
	checkVisitors(db, watch);
	return db.transaction(() => {
		const id = insertReading(db, { watchId: watch.id, why, plannedAt, missed });
		const rounds = Array.from({ length: watch.settings.loads }, (_, i) => i + 1);
		insertRounds(db, watch, id, { rounds, wanted: conditions.map((own) => ({ conditions: own, pages })) });
		return id;
	})();
}

interface Rounds {
	rounds: readonly number[];
	wanted: readonly { conditions: Conditions; pages: readonly WatchedPage[] }[];
}

function insertRounds(db: Db, watch: Watch, readingId: number, { rounds, wanted }: Rounds): void {
	const random = seededRandom(readingId * 1000 + rounds[0]!);
	for (const round of rounds) {
		const slots = wanted.flatMap(({ conditions, pages }) =>
			pages.flatMap((page): Slot[] =>
				Array.from({ length: page.role === 'control' ? CONTROL_TURNS : 1 }, (_, turn) => ({
					page,
					conditions,
					round,
					turn,
					late: null
				}))
			)
		);
		for (const slot of shuffled(slots, random)) insertSlot(db, { watch, readingId, slot, retry: 0 });
	}
}

function insertSlot(
	db: Db,
	{
		watch: { clientId, settings },
		readingId,
		slot,
		retry
	}: { watch: Watch; readingId: number; slot: Slot; retry: number }
): void {
	const { page, conditions, round, turn, late } = slot;
	const url = page.url || CONTROL_URL;
	const isControl = page.role === 'control';
	const usual = isControl ? conditions : atPlaceOf(db, clientId, [url], conditions);
	const jobId = insertRequest(
		db,
		{ kind: 'reading', id: readingId },
		{
			url,
			conditions: late ? { ...usual, input: late === 'held-back' ? 'nudge' : 'none' } : usual,
			steps: [],
			patience: late === 'postponed',
			shown: isControl ? [] : settings.shown,
			before: page.pageId === null ? null : visitorOfPage(db, settings, page.pageId)
		}
	);
	insertReadingSlot(db, { jobId, readingId, page: page.id, condition: conditions.id, round, turn, retry, late });
}

/** Store a load of a block, and move the block on. In the caller's transaction. */
export function storeReadingLoad(db: Db, job: Job, version: NamedVersion, measured: MeasuredLoad): void {
	const reading = findReading(db, job.subject.id);
	const watch = reading && findWatch(db, reading.watchId);
	const slot = slotOfJob(db, job.id);
	// Deleted while it was loaded.
	if (!reading || !watch || !slot) return;
	insertLoad(
		db,
		{ jobId: job.id, slot: null, conditionId: version.id, conditionsHash: version.hash, clientId: watch.clientId },
		measured
	);
	const { status, environment } = measured.record;
	if (slot.retry < MOST_RETRIES && (status === 'failed' || environment.calm?.disturbed))
		retry(db, { watch, reading, row: slot, conditions: thawConditions(db, version) });
	settleReading(db, watch, reading);
}

/** Under the conditions that the block froze, whatever they are by now. */
function retry(
	db: Db,
	{ watch, reading, row, conditions }: { watch: Watch; reading: Reading; row: SlotRow; conditions: Conditions }
): void {
	const page = pagesOfWatch(db, watch.id).find(({ id }) => id === row.watchedPageId);
	if (!page || isDown(db, reading.id, row)) return;
	const { round, turn, late } = row;
	insertSlot(db, {
		watch,
		readingId: reading.id,
		slot: { page, conditions, round, turn, late },
		retry: row.retry + 1
	});
}

/** A page that has failed so often without a single good load is not tried again: it is down. */
const HOPELESS = 5;

function isDown(db: Db, readingId: number, { watchedPageId, conditionId }: SlotRow): boolean {
	const loads = loadsOfSlot(db, readingId, watchedPageId, conditionId);
	return loads.length >= HOPELESS && loads.every(({ status }) => status === 'failed');
}

/** When nothing of a block is open any more: a second look at what may have moved, or its end. */
function settleReading(db: Db, watch: Watch, reading: Reading): void {
	if (hasOpenJob(db, 'load', { kind: 'reading', id: reading.id })) return;
	for (const stored of figuresNow(db, reading.id)) saveFigures(db, stored);
	const goesOn = watch.kind === 'watch' ? extend : askLate;
	if (reading.extended === null && goesOn(db, watch, reading)) return;
	endReading(db, reading.id, nowIso());
	pruneLoads(db, watch.id);
	const kind = watch.kind === 'watch' ? 'history' : 'ranks';
	insertJob(db, { kind: 'derive', subject: { kind: 'watch', id: watch.id }, order: kind, priority: PRIORITY.awaited });
}

/** @returns whether more loads were queued */
function extend(db: Db, watch: Watch, reading: Reading): boolean {
	const pages = pagesOfWatch(db, watch.id);
	const control = pages.find(({ role, endedAt }) => role === 'control' && endedAt === null) ?? null;
	const figures = [...figuresOfWatch(db, watch.id), ...figuresOfReading(db, reading.id)];
	const histories = historiesFrom(figures, [...readingsOfWatch(db, watch.id)], control?.id ?? null);
	const hints = hintsIn(histories, watch.settings);
	setExtended(db, reading.id, hints);
	if (!hints.length) return false;
	const wanted = conditionsOfWatch(db, watch).flatMap((conditions) => {
		const own = pages.filter((page) => hints.some((hint) => hint.page === page.id && hint.condition === conditions.id));
		return own.length ? [{ conditions, pages: control ? [...own, control] : own }] : [];
	});
	const rounds = Array.from({ length: EXTRA_LOADS }, (_, i) => watch.settings.loads + 1 + i);
	insertRounds(db, watch, reading.id, { rounds, wanted });
	return wanted.length > 0;
}

/** Once its rounds are done, a standing asks of each page that can be loaded what it puts off. */
function askLate(db: Db, watch: Watch, reading: Reading): boolean {
	setExtended(db, reading.id, []);
	const pages = pagesOfWatch(db, watch.id);
	const allConditions = conditionsOfWatch(db, watch);
	const measuredOnes = figuresOfReading(db, reading.id).filter(({ setting }) => setting !== null);
	for (const { watchedPageId, conditionId } of measuredOnes) {
		const page = pages.find(({ id }) => id === watchedPageId);
		const conditions = allConditions.find(({ id }) => id === conditionId);
		if (!page || !conditions) continue;
		LATE_KINDS.forEach((late, turn) =>
			insertSlot(db, { watch, readingId: reading.id, slot: { page, conditions, round: 0, turn, late }, retry: 0 })
		);
	}
	return measuredOnes.length > 0;
}

function figuresNow(db: Db, readingId: number): StoredFigures[] {
	const all = slotsOf(db, readingId);
	return all.map(({ watchedPageId, conditionId }) => summarise(db, readingId, watchedPageId, conditionId));
}

/** The pages' own User Timing of each load, beside its figures: standings rank it, watches draw it. */
function timingsOf(db: Db, loads: readonly SlotLoad[]): Record<string, (number | null)[]> {
	const all = loads.map(({ id }) => timingsIn(findRecord(db, id)!));
	const names = [...new Set(all.flatMap((own) => Object.keys(own)))].slice(0, MOST_TIMINGS);
	return Object.fromEntries(names.map((name) => [timingKey(name), all.map((own) => own[name] ?? null)]));
}

const MOST_TIMINGS = 20;

type SlotLoad = Pick<
	TrialLoad,
	'id' | 'armId' | 'conditionId' | 'stage' | 'round' | 'warmup' | 'status' | 'disturbed' | 'figures'
>;

/** In the shape in which a trial's loads are counted: the turns of the control stand for variants. */
function loadsOfSlot(db: Db, readingId: number, watchedPageId: number, conditionId: string): SlotLoad[] {
	return slotLoads(db, readingId, watchedPageId, conditionId).map(({ id, turn, round }) => ({
		...findLoad(db, id)!,
		armId: turn,
		conditionId,
		round
	}));
}

function summarise(db: Db, readingId: number, watchedPageId: number, conditionId: string): StoredFigures {
	const loads = loadsOfSlot(db, readingId, watchedPageId, conditionId);
	const calm = countedLoads({}, loads);
	const counted = calm.length < LEAST_CALM ? countedLoads({ countsDisturbed: true }, loads) : calm;
	const ordered = [...counted].sort((a, b) => a.round - b.round || a.armId - b.armId);
	const middle = middleLoad(ordered);
	const settledLoads = loads.filter(({ id, status }) => status === 'failed' || id === middle?.id);
	const records = settledLoads.flatMap(({ id }) => findRecord(db, id) ?? []);
	const url = records[0]?.url ?? '';
	const record = middle && findRecord(db, middle.id);
	return {
		readingId,
		watchedPageId,
		conditionId,
		setting: record && settingOf(record, `${hashOfLoad(db, middle.id)}${visitorOfLoad(db, middle.id)}`),
		figures: {
			...figuresByMetric(ordered.map(({ figures }) => figures)),
			...timingsOf(db, ordered)
		},
		rounds: ordered.map(({ round }) => round),
		trouble: troubleOf(url, records, signatureBefore(db, readingId, watchedPageId, conditionId)),
		disturbed: ordered.filter(({ disturbed }) => disturbed).length,
		loadId: middle?.id ?? loads.at(-1)?.id ?? null
	};
}

/** Of the load that stood for the reading before; empty without one. */
function signatureBefore(db: Db, readingId: number, watchedPageId: number, conditionId: string): readonly number[] {
	const before = loadBefore(db, readingId, watchedPageId, conditionId);
	return (before !== null && findRecord(db, before)?.page?.signature) || [];
}

function settingOf(record: LoadRecord, conditions: string): Setting {
	return { browser: record.environment.browser, conditions, recipe: record.recipe, lab: hostname() };
}

/** Turn what has not been loaded yet away; a block of which nothing was loaded goes altogether. */
export function cancelReading(db: Db, watch: Watch): void {
	const reading = openReading(db, watch.id);
	if (!reading) throw new NotPossible(409, 'No reading is under way.');
	db.transaction(() => {
		deleteQueued(db, reading.id);
		if (!hasLoads(db, reading.id)) return deleteReading(db, reading.id);
		setExtended(db, reading.id, reading.extended ?? []);
		settleReading(db, watch, { ...reading, extended: reading.extended ?? [] });
	})();
}
