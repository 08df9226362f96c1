import { error, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import * as v from 'valibot';
import { Setup } from '$core/trial/setup';
import { getDb } from '$lib/server/context';
import type { Db } from '$lib/server/db/connection';
import { idFrom } from '$lib/server/http/api';
import { formAction, jsonOf, textOf } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/http/refusal';
import { settingsFileOf } from '$lib/server/http/settingsFile';
import { excludeLoad } from '$lib/server/loads/commands';
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
} from '$lib/server/trials/commands';
import { findTrial } from '$lib/server/trials/trial';
import { repeatByAge, repeatTrial } from '$lib/server/trials/repeat';
import { sheetView } from '$lib/server/trials/sheetView';
import { packSheet } from './packedSheet';

export const load = async ({ params, url }) => {
	const db = getDb();
	const trial = findTrial(db, Number(params.id));
	if (!trial) error(404, `There is no trial ${params.id}.`);
	return packSheet(await sheetView(db, trial, url.searchParams.get('metric') ?? ''));
};

/** Act on the trial of the address with what the form says. */
const act = (work: (db: Db, id: number, form: FormData) => void | Promise<void>) =>
	formAction(async (form, { params }: RequestEvent) => {
		await work(getDb(), idFrom(params.id, 'trial'), form);
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
	age: formAction((_, { params }: RequestEvent) => {
		repeatByAge(getDb(), idFrom(params.id, 'trial'));
	}),
	repeat: formAction((_, { params }: RequestEvent) =>
		redirect(303, `/trials/${repeatTrial(getDb(), idFrom(params.id, 'trial'))}`)
	),
	delete: formAction((_, { params }: RequestEvent) => {
		deleteTrial(getDb(), idFrom(params.id, 'trial'));
		redirect(303, '/trials');
	})
};
