import * as v from 'valibot';
import type { MetricReading } from '$core/field/reading';
import type { RequestEvent } from './$types';
import { existingClient } from '$lib/server/rooms/clients/clients';
import { requestField } from '$lib/server/rooms/field/gathering';
import { describeAssessment } from '$core/wording/field';
import { chosenPagesOf } from '$lib/server/rooms/pages/chosen';
import { fieldView } from '$lib/server/rooms/field/view';
import { packTrend } from './trendText';
import { Text } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { clientNames } from '$lib/server/rooms/clients/view';

export const load = async ({ locals, parent, url }) => {
	const { clientId } = await parent();
	const names = clientNames(locals.db);
	const wantedId = Number(url.searchParams.get('client')) || clientId;
	// Without one that is asked for, the first whose pages are looked at.
	const client =
		names.find(({ id }) => id === wantedId) ??
		names.find(({ id }) => chosenPagesOf(locals.db, id).length > 0) ??
		names[0] ??
		null;
	return {
		where: client ? `Field › ${client.name}` : 'Field',
		names,
		client,
		hasPanel: locals.settings.panel.url !== '',
		filter: { assessment: url.searchParams.get('is') ?? '', device: url.searchParams.get('device') ?? '' },
		view: client && listed(fieldView(locals.db, client))
	};
};

/** What the list shows: all rows travel to the browser, which filters and sorts them. */
function listed({ rows, ...rest }: ReturnType<typeof fieldView>) {
	const shown = rows.map(({ metrics, trend, earlier, ...row }) => {
		const { lcp, inp, cls } = metrics ?? {};
		return {
			...row,
			trend: packTrend(trend),
			earlier: earlier && { ...earlier, metrics: undefined, words: describeAssessment(earlier.metrics) },
			metrics: metrics && { lcp: figureOf(lcp), inp: figureOf(inp), cls: figureOf(cls) }
		};
	});
	return { ...rest, rows: shown };
}

const figureOf = (reading: MetricReading | undefined) => reading && { p75: reading.p75, shares: reading.shares };

export const actions = {
	gather: formAction(v.object({ client: Text }), ({ client }, { locals }: RequestEvent) => {
		requestField(locals.db, existingClient(locals.db, Number(client)).id);
	})
};
