/** What somebody is told of a watch: once each, on the Desk, and by mail and webhook where that was asked for. */
import type { Break } from '$core/watch/breaks';
import { eventsOf, grownUntil } from '$core/watch/history';
import {
	describeControl,
	describeParts,
	describeTrouble,
	figuresOfChanges,
	howSure,
	reasonsOfChanges,
	titleOfBreak,
	titleOfChanges,
	WATCH_WORDS,
	whenOfChange
} from '$core/wording/watch';
import type { Db } from '../../base/db/connection';
import { causesOf, type WatchHistory } from './findings';
import type { Reading } from './queries/readings';
import type { Watch, WatchedPage } from './queries/watches';
import { insertNotice } from './queries/notices';

export function tellFindings(
	db: Db,
	{
		watch,
		pages,
		readings,
		history
	}: { watch: Watch; pages: readonly WatchedPage[]; readings: readonly Reading[]; history: WatchHistory }
): void {
	const at = new Map(readings.map((reading) => [reading.id, reading]));
	const pageName = (page: number) => pages.find(({ id }) => id === page)?.name ?? '';
	for (const changes of eventsOf(history.changes)) {
		// What is too small to matter stands in the history; nobody is called for it.
		if (changes.every(({ verdict }) => verdict === 'same' || verdict === 'undecided')) continue;
		const { page, condition, before, after } = changes[0]!;
		const found = at.get(Math.max(...changes.map(({ calledAt }) => calledAt)));
		const grown = grownUntil(changes);
		const dates = [before, after].map((id) => at.get(id)?.plannedAt ?? '') as [string, string];
		const when = whenOfChange(...dates, grown === null ? null : (at.get(grown)?.plannedAt ?? null));
		insertNotice(db, {
			watch,
			key: `change/${page}/${condition}/${after}`,
			reading: found,
			body: {
				kind: 'change',
				title: titleOfChanges(changes, pageName(page), condition),
				when,
				lines: [...figuresOfChanges(changes), ...reasonsOfChanges(changes, causesOf(history, changes)), howSure()],
				path: `/watch/${watch.id}/${page}?on=${condition}`,
				page,
				condition,
				changes
			}
		});
	}
	for (const own of firstOfEach(history.breaks))
		insertNotice(db, {
			watch,
			key: `break/${own.reading}`,
			reading: at.get(own.reading),
			body: {
				kind: 'break',
				title: titleOfBreak(own),
				when: '',
				lines: [describeParts(own), describeControl(own.control, watch.settings.metrics)].filter(Boolean),
				path: `/watch/${watch.id}`,
				page: null,
				condition: null,
				changes: []
			}
		});
	tellTroubles(db, { watch, readings, watchHistory: history, pageName });
}

function tellTroubles(
	db: Db,
	{
		watch,
		readings,
		watchHistory: { states },
		pageName
	}: { watch: Watch; readings: readonly Reading[]; watchHistory: WatchHistory; pageName: (page: number) => string }
): void {
	for (const { page, condition, trouble } of states) {
		const what = trouble && describeTrouble(trouble);
		// As long as it stays the same it is told once.
		if (what)
			insertNotice(db, {
				watch,
				key: `trouble/${page}/${condition}/${what}`,
				reading: readings.at(-1),
				body: {
					kind: 'trouble',
					title: WATCH_WORDS.say('trouble.title', { page: pageName(page), condition, what }),
					when: '',
					lines: [],
					path: `/watch/${watch.id}/${page}?on=${condition}`,
					page,
					condition,
					changes: []
				}
			});
	}
}

function firstOfEach(breaks: readonly Break[]): Break[] {
	return [...new Map([...breaks].reverse().map((own) => [own.reading, own])).values()];
}
