import type { MetricReading } from '$core/field/reading';
import type { RequestEvent } from './$types';
import { clientNames, existingClient } from '$lib/server/clients/clients';
import { getDb, getSettings } from '$lib/server/context';
import { requestField } from '$lib/server/field/gathering';
import { describeAssessment } from '$core/wording/field';
import { chosenPagesOf } from '$lib/server/pages/chosen';
import { fieldView } from '$lib/server/field/view';
import { packTrend } from './trendText';
import { formAction, textOf } from '$lib/server/http/form';

export const load = async ({ parent, url }) => {
	const { clientId } = await parent();
	const names = clientNames(getDb());
	const asked = Number(url.searchParams.get('client')) || clientId;
	// Without one that is asked for, the first whose pages are looked at.
	const client =
		names.find(({ id }) => id === asked) ??
		names.find(({ id }) => chosenPagesOf(getDb(), id).length > 0) ??
		names[0] ??
		null;
	return {
		where: client ? `Field › ${client.name}` : 'Field',
		names,
		client,
		hasPanel: getSettings().panel.url !== '',
		filter: { assessment: url.searchParams.get('is') ?? '', device: url.searchParams.get('device') ?? '' },
		view: client && listed(fieldView(getDb(), client))
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
	gather: formAction((form: FormData, _event: RequestEvent) => {
		requestField(getDb(), existingClient(getDb(), Number(textOf(form, 'client'))).id);
	})
};
