import { csvOf } from '$core/formats/csv';
import { answering, idFrom } from '$lib/server/http/api';
import { csvAnswer } from '$lib/server/http/csv';
import { standingView } from '$lib/server/rooms/standings/view';

const HEAD = ['conditions', 'metric', 'page', 'address', 'figure', 'range', 'first_place', 'last_place'];

/** Places of the newest run, page by page and metric by metric; empty where the run tells none. */
export const GET = ({ locals, params }) =>
	answering(() => {
		const id = idFrom(params.id, 'standing');
		const { conditions, pages } = standingView(locals.db, id);
		const pageOf = (page: number) => pages.find((known) => known.id === page);
		const rows = conditions.flatMap(({ condition, rows: metrics }) =>
			metrics.flatMap(({ metric, lanes, cells }) =>
				lanes.map((lane) => {
					const cell = cells.find(({ page }) => page === lane.id);
					const page = pageOf(lane.id);
					return [condition, metric, lane.name, page?.url ?? '', lane.figure, lane.range, cell?.from, cell?.to].map(
						(value) => value ?? null
					);
				})
			)
		);
		return csvAnswer(`standing-${id}.csv`, csvOf(HEAD, rows));
	});
