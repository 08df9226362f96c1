import type { RequestEvent } from './$types';
import { Agency } from '$core/report/agency';
import { BUTTON } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { deleteLogo, hasLogo, saveLogo } from '$lib/server/rooms/reports/agency';
import { agencyOf, saveAgency } from '$lib/server/rooms/reports/view';

export const load = async ({ locals }) => ({
	where: 'Workshop › Agency',
	form: await formOf(Agency, agencyOf(locals.db)),
	hasLogo: hasLogo(locals.db)
});

export const actions = {
	save: formAction(Agency, async (agency, { locals }: RequestEvent, body) => {
		saveAgency(locals.db, agency);
		const logo = body.get('logo');
		if (logo instanceof File && logo.size > 0) await saveLogo(locals.db, new Uint8Array(await logo.arrayBuffer()));
		return { isSaved: true };
	}),
	dropLogo: formAction(BUTTON, (_, { locals }: RequestEvent) => deleteLogo(locals.db))
};
