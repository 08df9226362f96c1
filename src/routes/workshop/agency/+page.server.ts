import { fail } from '@sveltejs/kit';
import * as v from 'valibot';
import { Agency } from '$core/report/agency';
import { issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { agencyOf, deleteLogo, hasLogo, saveAgency, saveLogo } from '$lib/server/rooms/reports/agency';

export const load = ({ locals }) => ({
	where: 'Workshop › Agency',
	agency: agencyOf(locals.db),
	hasLogo: hasLogo(locals.db)
});

export const actions = {
	save: formAction(async (form, { locals }) => {
		const typed = Object.fromEntries(
			['name', 'contact', 'accent', 'standing', 'standingEs'].map((name) => [name, textOf(form, name)])
		);
		const read = v.safeParse(Agency, typed);
		if (!read.success) return fail(422, { typed, issues: issuesOf(read.issues) });
		saveAgency(locals.db, read.output);
		const logo = form.get('logo');
		if (logo instanceof File && logo.size > 0) await saveLogo(locals.db, new Uint8Array(await logo.arrayBuffer()));
		return { isSaved: true, issues: [] };
	}),
	dropLogo: formAction((_form: FormData, { locals }) => {
		deleteLogo(locals.db);
		return { issues: [] };
	})
};
