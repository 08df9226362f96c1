import { fail } from '@sveltejs/kit';
import * as v from 'valibot';
import { Agency } from '$core/report/agency';
import { getDb } from '$lib/server/context';
import { issuesOf } from '$lib/server/http/api';
import { formAction, textOf } from '$lib/server/http/form';
import { agencyOf, deleteLogo, hasLogo, saveAgency, saveLogo } from '$lib/server/reports/agency';

export const load = () => ({ where: 'Workshop › Agency', agency: agencyOf(getDb()), hasLogo: hasLogo(getDb()) });

export const actions = {
	save: formAction(async (form) => {
		const typed = Object.fromEntries(
			['name', 'contact', 'accent', 'standing', 'standingEs'].map((name) => [name, textOf(form, name)])
		);
		const read = v.safeParse(Agency, typed);
		if (!read.success) return fail(422, { typed, issues: issuesOf(read.issues) });
		saveAgency(getDb(), read.output);
		const logo = form.get('logo');
		if (logo instanceof File && logo.size > 0) await saveLogo(getDb(), new Uint8Array(await logo.arrayBuffer()));
		return { isSaved: true, issues: [] };
	}),
	dropLogo: formAction(() => {
		deleteLogo(getDb());
		return { issues: [] };
	})
};
