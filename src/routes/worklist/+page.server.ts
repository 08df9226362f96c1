import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { idFrom } from '$lib/server/http/api';
import { ROW } from '$lib/server/http/fields';
import { formAction } from '$lib/server/http/form';
import { parsed } from '$lib/server/base/parse';
import { NotPossible } from '$lib/server/base/refusal';
import { changeFindings, FindingChange, lookAgainAt } from '$lib/server/rooms/audits/commands';
import { FindingFields } from '$lib/server/rooms/audits/form';
import { rehearseFinding } from '$lib/server/rooms/audits/rehearse';
import { worklistFilterOf } from '$lib/server/rooms/audits/filter';
import { auditListView } from '$lib/server/rooms/audits/view';
import { worklistView } from '$lib/server/rooms/audits/worklistView';

export const load = async ({ locals: { db }, parent, url }) => {
	const { clientId } = await parent();
	const { filter, rows } = worklistFilterOf(url.searchParams);
	const own = { ...filter, clientId };
	return {
		where: 'Worklist',
		clientId,
		filter: { state: own.state ?? '', rule: own.rule ?? '', words: own.words ?? '' },
		/** What is taken along: the rows that are shown. */
		csv: `/api/findings.csv?${csvQuery(own)}`,
		list: worklistView(db, own, rows),
		hasAudits: auditListView(db, clientId).total > 0
	};
};

export const actions = {
	rehearse: formAction(ROW, ({ id }, { locals }: RequestEvent) =>
		redirect(303, `/trials/${rehearseFinding(locals.db, idFrom(id, 'finding'))}`)
	),
	again: formAction(ROW, ({ id }, { locals }: RequestEvent) =>
		redirect(303, `/audits/${lookAgainAt(locals.db, idFrom(id, 'finding'))}`)
	),
	change: formAction(FindingFields, ({ finding, state, owner, note, question }, { locals }: RequestEvent) => {
		const ids = finding.map(Number).filter(Number.isSafeInteger);
		if (!ids.length) throw new NotPossible(422, 'Mark the lines first.', 'finding');
		const change = parsed(FindingChange, {
			...(state ? { state } : {}),
			// One line has all its fields; of several only what was written changes.
			...(ids.length === 1 || owner ? { owner } : {}),
			...(ids.length === 1 || note ? { note } : {}),
			...(ids.length === 1 || question ? { question } : {})
		});
		changeFindings(locals.db, ids, change);
	})
};

function csvQuery({
	clientId,
	state = '',
	rule = '',
	words = ''
}: ReturnType<typeof worklistFilterOf>['filter']): URLSearchParams {
	const given = Object.entries({ client: clientId === null ? '' : String(clientId), state, rule, q: words });
	return new URLSearchParams(given.filter(([, value]) => value !== ''));
}
