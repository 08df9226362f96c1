import { error, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { Setup } from '$core/trial/design/setup';
import type { Db } from '$lib/server/base/db/connection';
import { idFrom } from '$lib/server/http/api';
import { formAction, jsonOf, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { settingsFileOf } from '$lib/server/http/settingsFile';
import { excludeLoad } from '$lib/server/rooms/loads/commands';
import {
	addRounds,
	changeSetup,
	checkLateWork,
	deleteTrial,
	intendDifference,
	noteChange,
	pauseTrial,
	putFirst,
	startTrial,
	stopTrial
} from '$lib/server/rooms/trials/commands';
import { findTrial } from '$lib/server/rooms/trials/trial';
import { repeatByAge, repeatTrial } from '$lib/server/rooms/trials/repeat';
import { sheetView } from '$lib/server/rooms/trials/sheetView';

export const load = async ({ locals, params, url }) => {
	const db = locals.db;
	const trial = findTrial(db, Number(params.id));
	if (!trial) error(404, `There is no trial ${params.id}.`);
	return sheetView(db, trial, url.searchParams.get('metric') ?? '', locals.judgeElsewhere);
};

/** Act on the trial of the address with what the form says. */
const act = (work: (db: Db, id: number, form: FormData) => void | Promise<void>) =>
	formAction(async (form, { locals, params }: RequestEvent) => {
		await work(locals.db, idFrom(params.id, 'trial'), form);
		return { done: true };
	});

export const actions = {
	start: act(async (db, id, form) => {
		const words = textOf(form, 'change').trim().slice(0, 2000);
		const settings = await settingsFileOf(form);
		if (words || settings)
			noteChange(db, id, {
				words: words || `Settings saved: ${settings?.name}`,
				fileName: settings?.name ?? null,
				file: settings?.text ?? null
			});
		startTrial(db, id);
	}),
	first: act((db, id) => putFirst(db, id)),
	pause: act((db, id) => pauseTrial(db, id)),
	stop: act((db, id) => stopTrial(db, id)),
	rounds: act((db, id, form) => addRounds(db, id, Number(textOf(form, 'rounds')))),
	exclude: act((db, _, form) => excludeLoad(db, idFrom(textOf(form, 'load'), 'load'), textOf(form, 'reason'))),
	restore: act((db, _, form) => excludeLoad(db, idFrom(textOf(form, 'load'), 'load'), null)),
	intend: act((db, id, form) => void intendDifference(db, id, textOf(form, 'line').slice(0, 40))),
	setup: act((db, id, form) => {
		const parsed = v.safeParse(Setup, jsonOf(textOf(form, 'setup') || '{}', 'setup'));
		if (!parsed.success) throw new NotPossible(422, `The setup was not saved: ${parsed.issues[0].message}`, 'setup');
		changeSetup(db, id, Number(textOf(form, 'arm')), parsed.output);
	}),
	late: act((db, id, form) => void checkLateWork(db, id, Number(textOf(form, 'arm')))),
	age: formAction((_, { locals, params }: RequestEvent) => {
		repeatByAge(locals.db, idFrom(params.id, 'trial'));
	}),
	repeat: formAction((_, { locals, params }: RequestEvent) =>
		redirect(303, `/trials/${repeatTrial(locals.db, idFrom(params.id, 'trial'))}`)
	),
	delete: formAction((_, { locals, params }: RequestEvent) => {
		deleteTrial(locals.db, idFrom(params.id, 'trial'));
		redirect(303, '/trials');
	})
};
