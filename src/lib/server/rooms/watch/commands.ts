/** Making, changing and ending watches; each checks what can be done and says why it cannot. */
import type { StandingInput, WatchInput, WatchSettings } from '$core/watch/input';
import { nextReading } from '$core/watch/schedule';
import { existingClient } from '../clients/clients';
import { findConditions, namesOfConditions } from '../conditions/saved';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { cancelReading } from './blocks';
import { freezeForWatch } from './conditions';
import { openReading } from './queries/readings';
import {
	deleteWatchRow,
	insertWatch,
	insertWatchedPage,
	pagesOfWatch,
	setEnded,
	updateWatch,
	type Watch,
	type WatchKind
} from './queries/watches';
import { existingWatch } from './watches';
import { existingSite, existingState } from '../clients/view';
import { existingPage, type PageRow } from '../pages/view';

/** What a form or the API asks for. */
export type AnyInput = (WatchInput & { kind: 'watch' }) | (StandingInput & { kind: 'standing' });

const CONTROL_NAME = 'Control page';

/** @returns the number of the new watch or standing */
export function createWatch(db: Db, input: AnyInput, now = new Date()): number {
	const settings = settingsFrom(db, input);
	const pages = pagesFrom(db, input);
	return db.transaction(() => {
		const id = insertWatch(db, {
			clientId: input.clientId,
			kind: input.kind,
			name: input.name,
			settings,
			nextAt: nextReading(settings.schedule, now)?.toISOString() ?? null,
			at: now.toISOString()
		});
		freezeForWatch(db, id, settings.conditions);
		pages.forEach((page, i) => insertWatchedPage(db, id, page, i));
		if (input.kind === 'watch') insertControl(db, id, input.control);
		return id;
	})();
}

function insertControl(db: Db, watchId: number, url: string | null): void {
	insertWatchedPage(db, watchId, { pageId: null, url: url ?? '', name: CONTROL_NAME, role: 'control' }, 1000);
}

function settingsFrom(db: Db, input: AnyInput): WatchSettings {
	const { conditions, schedule, loads, metrics, notices, clientId, states } = input;
	checkStates(db, clientId, states);
	for (const id of conditions)
		if (!findConditions(db, id))
			throw new NotPossible(422, `Unknown conditions “${id}”. Known are: ${namesOfConditions(db)}.`, 'conditions');
	return {
		conditions: [...new Set(conditions)],
		schedule,
		loads,
		metrics: [...new Set(metrics)],
		notices,
		states,
		...(input.kind === 'standing' ? { shown: input.shown } : {})
	};
}

/** One of a site at most, and of the client's sites. */
function checkStates(db: Db, clientId: number, ids: readonly number[]): void {
	const sites = ids.map((id) => existingSite(db, existingState(db, id).siteId));
	if (sites.some((site) => site.clientId !== clientId))
		throw new NotPossible(422, 'A visitor state belongs to another client.', 'states');
	if (new Set(sites.map(({ id }) => id)).size < sites.length)
		throw new NotPossible(422, 'Choose one visitor state of a site: a load has one visitor.', 'states');
}

function pagesFrom(db: Db, input: AnyInput) {
	existingClient(db, input.clientId);
	return [...new Set(input.pages)].map((id) => {
		const page = existingPage(db, id);
		const site = existingSite(db, page.siteId);
		if (site.clientId !== input.clientId) throw new NotPossible(422, `Page ${id} belongs to another client.`, 'pages');
		const role = input.kind === 'standing' && site.role === 'competitor' ? ('competitor' as const) : ('page' as const);
		return { pageId: id, url: page.url, name: input.kind === 'standing' ? site.name : pathOfPage(page), role };
	});
}

const pathOfPage = ({ url }: PageRow) => new URL(url).pathname;

/** Settings and pages anew. A page that is taken out keeps its history; one that comes back goes on with it. */
export function changeWatch(db: Db, id: number, input: AnyInput, now = new Date()): void {
	const watch = existingWatch(db, id, input.kind);
	if (watch.clientId !== input.clientId)
		throw new NotPossible(422, 'A watch stays with its client: make another for another client.', 'clientId');
	const settings = settingsFrom(db, input);
	const wanted = pagesFrom(db, input);
	const nextAt = nextReading(settings.schedule, now)?.toISOString() ?? null;
	db.transaction(() => {
		updateWatch(db, id, { name: input.name, settings, state: watch.state, nextAt });
		freezeForWatch(db, id, settings.conditions);
		const watched = pagesOfWatch(db, id).filter(({ role }) => role !== 'control');
		for (const { id: own, url } of watched)
			setEnded(db, own, wanted.some((page) => page.url === url) ? null : now.toISOString());
		wanted.forEach((page, i) => {
			if (!watched.some(({ url }) => url === page.url)) insertWatchedPage(db, id, page, i);
		});
		if (input.kind === 'watch') changeControl(db, id, input.control ?? '', now);
	})();
}

function changeControl(db: Db, watchId: number, url: string, now: Date): void {
	const controls = pagesOfWatch(db, watchId).filter(({ role }) => role === 'control');
	for (const control of controls) setEnded(db, control.id, control.url === url ? null : now.toISOString());
	if (!controls.some((control) => control.url === url)) insertControl(db, watchId, url);
}

/** @param state paused: nothing is loaded; taken up again, the gap is shown and nothing is made up for */
export function setWatchState(db: Db, id: number, kind: WatchKind, state: Watch['state'], now = new Date()): void {
	const watch = existingWatch(db, id, kind);
	const nextAt = state === 'active' ? (nextReading(watch.settings.schedule, now)?.toISOString() ?? null) : null;
	updateWatch(db, id, { ...watch, state, nextAt });
	if (state === 'paused' && openReading(db, id)) cancelReading(db, watch);
}

/** With its history; loads that stand in a report stay in the report. */
export function deleteWatch(db: Db, id: number, kind: WatchKind): void {
	const watch = existingWatch(db, id, kind);
	db.transaction(() => {
		if (openReading(db, id)) cancelReading(db, watch);
		deleteWatchRow(db, id);
	})();
}
