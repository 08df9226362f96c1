/** What outages of outside services did to a page. */
import { outsideServices, rankOutages, type OutageResult, type RankedOutage } from '$core/load/journey/outage';
import type { LoadRecord } from '$core/load/record/record';
import type { Db } from '../../base/db/connection';
import { findRecord } from './loads';
import { againRequests } from './requested';

export interface OutageView {
	/** The outside services of the page, as its load asked them. */
	services: string[];
	/** Loads that still wait for the lab. */
	waiting: number;
	results: RankedOutage[];
}

export function outageView(db: Db, id: number, record: LoadRecord, cdnHosts: readonly string[]): OutageView {
	const requests = againRequests(db, id, 'outage');
	const results = requests.flatMap(({ outage, loadId }): OutageResult[] => {
		const seen = loadId === null ? null : findRecord(db, loadId);
		return seen && outage
			? [{ ...resultOf(seen), service: outage.hosts.join(', '), how: outage.how, load: loadId! }]
			: [];
	});
	return {
		services: outsideServices(record, cdnHosts).map(({ name }) => name),
		waiting: requests.filter(({ status }) => status !== 'done').length,
		results: rankOutages(results, resultOf(record))
	};
}

function resultOf({ figures, page, failure, steps }: LoadRecord) {
	return {
		start: figures.start,
		lcp: figures.lcp,
		onload: figures.onload,
		errors: page?.consoleErrors.length ?? 0,
		failed: failure?.message ?? null,
		failedStep: steps.find(({ status }) => status === 'failed')?.number ?? null
	};
}
