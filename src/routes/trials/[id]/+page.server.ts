import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { Setup } from '$core/trial/design/setup';
import { openIn } from '$lib/fragmentText';
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
	existingTrial,
	intendDifference,
	noteChange,
	pauseTrial,
	putFirst,
	startTrial,
	stopTrial
} from '$lib/server/rooms/trials/commands';
import { repeatByAge, repeatTrial } from '$lib/server/rooms/trials/repeat';
import { drawnMetric } from '$lib/server/rooms/trials/sheet/head';
import { sheetMaterial } from '$lib/server/rooms/trials/sheet/material';
import { chosenOf, openedParts } from '$lib/server/rooms/trials/sheet/parts';

/** What the open parts show; each is fetched when it is opened. */
export const load = async ({ locals: { db, judgeElsewhere }, params, url: { searchParams } }) => {
	const trial = existingTrial(db, idFrom(params.id, 'trial'));
	const chosen = chosenOf(trial, {
		condition: searchParams.get('conditions') ?? '',
		arm: Number(searchParams.get('variant')),
		metric: drawnMetric(trial.design, searchParams.get('metric') ?? '')
	});
	const open = openIn(searchParams);
	const shown = open.length ? openedParts(await sheetMaterial(db, trial, judgeElsewhere), open, chosen) : {};
	return { chosen, shown };
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
