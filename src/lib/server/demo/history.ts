/**
 * The demonstration's histories: a year of a watch and twelve weeks of standings. Each reading is drawn from real loads
 * that the lab made of the simulated web at some states of its sites (`npm run demo:history`), so that its spread is
 * theirs; readings say of themselves that they were recorded.
 */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import * as v from 'valibot';
import { METRIC_IDS, type Figures } from '$core/metrics/catalogue';
import { parseRecord } from '$core/load/record/parseRecord';
import type { LoadRecord } from '$core/load/record/record';
import { seededRandom, type Random } from '$core/stats/random';
import { StandingInput, WatchInput } from '$core/watch/input';
import { figuresByMetric, type Setting } from '$core/watch/reading';
import { nextReading } from '$core/watch/schedule';
import { findConditions } from '../rooms/conditions/saved';
import { sql, type Db } from '../base/db/connection';
import { readFact, writeFact } from '../base/db/facts';
import { addMarker } from '../rooms/field/markers';
import { insertLoad } from '../rooms/loads/loads';
import { deriveRanks } from '../rooms/standings/ranks';
import { ROOT } from '../base/settings';
import { createWatch } from '../rooms/watch/commands';
import { deriveHistory } from '../rooms/watch/history';
import { movedWeeks } from './calendar';
import { HISTORY_STATES, HISTORY_STANDINGS, HISTORY_WATCH, type HistoryState } from './historyScenario';
import { findClientByName, sitesOf } from '../rooms/clients/view';
import { freezeConditions } from '../rooms/conditions/view';
import { endReading, saveFigures, pagesOfWatch } from '../rooms/watch/view';

const FILE = join(ROOT, 'demo/history/loads.ndjson.br');
const FACT = 'demonstration histories';
const WEEK_MS = 7 * 86_400_000;
const WEEKS = 52;
const STANDING_WEEKS = 12;
const WATCH_LOADS = 5;
const CONTROL_LOADS = 10;
const ROUNDS = 10;
const LAB = 'demonstration lab';

/** Real loads of one page at one state of its site. */
interface Group {
	host: string;
	path: string;
	state: string;
	condition: string;
	figures: Figures[];
	/** Of the middle one. */
	record: LoadRecord;
	frames: string[];
	picture: string | null;
}

interface Kept {
	group: Group;
	loadId: number;
}

/** Once, for a data folder that has none. */
export function importDemoHistory(db: Db): void {
	if (readFact(db, FACT) || !existsSync(FILE)) return;
	const clientId = findClientByName(db, HISTORY_WATCH.client);
	if (clientId === null) return;
	db.transaction(() => {
		const kept = readGroups().map((group): Kept => ({ group, loadId: storeMiddle(db, group, clientId) }));
		const world = new World(db, kept, clientId);
		importMarkers(db, clientId);
		importWatch(db, world, clientId);
		for (const standing of HISTORY_STANDINGS) importStanding(db, world, clientId, standing);
		writeFact(db, FACT, new Date().toISOString());
	}).immediate();
}

function readGroups(): Group[] {
	return brotliDecompressSync(readFileSync(FILE))
		.toString('utf8')
		.split('\n')
		.map((line) => {
			const group = JSON.parse(line) as Group;
			return { ...group, record: parseRecord(group.record) };
		});
}

function storeMiddle(db: Db, { condition, record, frames, picture }: Group, clientId: number): number {
	const measured = {
		record,
		frames: frames.map((frame) => Buffer.from(frame, 'base64')),
		picture: picture === null ? null : Buffer.from(picture, 'base64'),
		stepPicture: null
	};
	const conditionsHash = record.conditions ? freezeConditions(db, record.conditions).hash : null;
	return insertLoad(db, { jobId: null, slot: null, conditionId: condition, conditionsHash, clientId }, measured);
}

/** What is known of the simulated web, and how readings are drawn from it. */
class World {
	#random: Random = seededRandom(20_261_128);
	readonly #hashes: Map<string, string>;

	constructor(
		private readonly db: Db,
		private readonly kept: readonly Kept[],
		readonly clientId: number
	) {
		this.#hashes = new Map(['phone', 'desktop'].map((id) => [id, freezeConditions(db, findConditions(db, id)!).hash]));
	}

	pageId(host: string, path: string): number {
		const site = sitesOf(this.db, this.clientId).find((candidate) => candidate.host === host)!;
		return sql<{ id: number }>(this.db, 'SELECT id FROM page WHERE site_id = ? AND url = ?').get(
			site.id,
			`https://${host}${path}`
		)!.id;
	}

	setting(condition: string, browser: string): Setting {
		const { record } = this.kept[0]!.group;
		return { browser, conditions: this.#hashes.get(condition)!, recipe: record.recipe, lab: LAB };
	}

	find(host: string, path: string, state: string, condition: string): Kept {
		return this.kept.find(
			({ group }) =>
				group.host === host && group.path === path && group.state === state && group.condition === condition
		)!;
	}

	draw({ group }: Kept, loads: number): Figures[] {
		return Array.from({ length: loads }, () => group.figures[Math.floor(this.#random() * group.figures.length)]!);
	}
}

/** Which state a site was in so many weeks after the beginning of the year. */
function stateAt(states: readonly HistoryState[], week: number): string {
	return states.findLast(({ fromWeek }) => fromWeek <= week)!.state;
}

/** Weekly times up to now, as the schedule has them. */
function weeksUntilNow(weeks: number): Date[] {
	const schedule = { every: 'week' as const, pattern: '', timeZone: 'Europe/London' };
	const times: Date[] = [];
	let at: Date | null = new Date(Date.parse(HISTORY_WATCH.firstDay) + movedWeeks() * WEEK_MS);
	while (times.length < WEEKS && at) {
		at = nextReading(schedule, at);
		if (at) times.push(at);
	}
	return times.slice(-weeks);
}

function importMarkers(db: Db, clientId: number): void {
	const days = weeksUntilNow(WEEKS);
	for (const { host, states } of HISTORY_STATES) {
		const site = sitesOf(db, clientId).find((candidate) => candidate.host === host)!;
		for (const { fromWeek, marker } of states) {
			if (!marker) continue;
			// Live on the day before the first reading that shows it.
			const day = new Date(days[fromWeek]!.getTime() - 86_400_000).toISOString().slice(0, 10);
			addMarker(db, site.id, { day, path: '', kind: marker.kind, words: marker.words });
		}
	}
}

const browserAt = (week: number): string =>
	week < HISTORY_WATCH.browserWeek ? HISTORY_WATCH.browsers[0]! : HISTORY_WATCH.browsers[1]!;

function importWatch(db: Db, world: World, clientId: number): void {
	const { host, paths, name } = HISTORY_WATCH;
	const pages = paths.map((path) => world.pageId(host, path));
	const input = v.parse(WatchInput, { clientId, name, pages, schedule: { every: 'week', timeZone: 'Europe/London' } });
	const id = createWatch(db, { ...input, kind: 'watch' });
	const watched = pagesOfWatch(db, id);
	const { states } = HISTORY_STATES.find((site) => site.host === host)!;
	let missed = 0;
	weeksUntilNow(WEEKS).forEach((at, week) => {
		if (HISTORY_WATCH.missedWeeks.includes(week)) return void missed++;
		const reading = insertRecorded(db, id, at, missed);
		missed = 0;
		for (const condition of input.conditions)
			for (const { id: page, url, role } of watched) {
				const isControl = role === 'control';
				const kept = isControl
					? world.find('control', '/', 'plain', condition)
					: world.find(host, new URL(url).pathname, stateAt(states, week), condition);
				const drawn = world.draw(kept, isControl ? CONTROL_LOADS : WATCH_LOADS);
				save(db, { reading, page, condition, drawn, kept, setting: world.setting(condition, browserAt(week)) });
			}
		endReading(db, reading, at.toISOString());
	});
	deriveHistory(db, id);
}

function importStanding(
	db: Db,
	world: World,
	clientId: number,
	{ name, path, hosts }: (typeof HISTORY_STANDINGS)[number]
): void {
	const pages = hosts.map((host) => world.pageId(host, path));
	const input = v.parse(StandingInput, {
		clientId,
		name,
		pages,
		loads: ROUNDS,
		metrics: ['lcp', 'score', 'cls', 'tbt', 'wire'],
		schedule: { every: 'week', timeZone: 'Europe/London' }
	});
	const id = createWatch(db, { ...input, kind: 'standing' });
	const watched = pagesOfWatch(db, id);
	weeksUntilNow(STANDING_WEEKS).forEach((at, i) => {
		const week = WEEKS - STANDING_WEEKS + i;
		const reading = insertRecorded(db, id, new Date(at.getTime() + 3_600_000), 0);
		for (const condition of input.conditions)
			for (const { id: page, url } of watched) {
				const { hostname, pathname } = new URL(url);
				const { states } = HISTORY_STATES.find(({ host }) => host === hostname)!;
				const kept = world.find(hostname, pathname, stateAt(states, week), condition);
				const drawn = world.draw(kept, ROUNDS);
				save(db, { reading, page, condition, drawn, kept, setting: world.setting(condition, browserAt(week)) });
			}
		endReading(db, reading, at.toISOString());
	});
	deriveRanks(db, id);
}

function insertRecorded(db: Db, watchId: number, at: Date, missed: number): number {
	const { lastInsertRowid } = sql(
		db,
		"INSERT INTO reading (watch_id, why, state, planned_at, missed, extended) VALUES (?, 'recorded', 'open', ?, ?, '[]')"
	).run(watchId, at.toISOString(), missed);
	return Number(lastInsertRowid);
}

interface Drawn {
	reading: number;
	page: number;
	condition: string;
	drawn: readonly Figures[];
	kept: Kept;
	setting: Setting;
}

function save(db: Db, { reading, page, condition, drawn, kept, setting }: Drawn): void {
	saveFigures(db, {
		readingId: reading,
		watchedPageId: page,
		conditionId: condition,
		setting,
		figures: figuresByMetric(drawn.map((own) => Object.fromEntries(METRIC_IDS.map((id) => [id, own[id] ?? null])))),
		rounds: drawn.map((_, i) => i + 1),
		trouble: null,
		disturbed: 0,
		loadId: kept.loadId
	});
}
