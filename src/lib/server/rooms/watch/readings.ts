/** Readings: blocks of loads, and what is kept of them. */
import type { PageHistory, PageReading } from '$core/watch/reading';
import type { Reading, StoredFigures } from './queries/readings';

/** The histories of all pages but the control, which is set beside each. */
export function historiesFrom(
	figures: readonly StoredFigures[],
	readings: readonly Pick<Reading, 'id' | 'plannedAt'>[],
	controlId: number | null
): PageHistory[] {
	const at = new Map(readings.map(({ id, plannedAt }) => [id, plannedAt]));
	const controls = new Map(
		figures
			.filter(({ watchedPageId }) => watchedPageId === controlId)
			.map((stored) => [`${stored.readingId}/${stored.conditionId}`, stored.figures])
	);
	const histories = new Map<string, PageHistory>();
	for (const { readingId, watchedPageId, conditionId, setting, figures: own } of figures) {
		if (watchedPageId === controlId) continue;
		const key = `${watchedPageId}/${conditionId}`;
		const history = histories.get(key) ?? { page: watchedPageId, condition: conditionId, readings: [] };
		histories.set(key, history);
		const control = controls.get(`${readingId}/${conditionId}`) ?? null;
		const reading: PageReading = { reading: readingId, at: at.get(readingId) ?? '', setting, figures: own, control };
		history.readings.push(reading);
	}
	return [...histories.values()];
}
