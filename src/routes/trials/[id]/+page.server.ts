import * as v from 'valibot';
import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { openIn } from '$lib/fragmentText';
import type { Db } from '$lib/server/base/db/connection';
import { idFrom } from '$lib/server/http/api';
import { BUTTON, Figure, Text, Tick } from '$lib/server/http/fields';
import { formAction, type Fields, type Typed } from '$lib/server/http/form';
import { ArmSetupFields, setupFrom } from '$lib/server/rooms/setups/setupForm';
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
import { addStep, Decision, decideStep, endLog, NewStep } from '$lib/server/rooms/trials/steps';
import { parsed, readAt } from '$lib/server/base/parse';
import { parsePresence } from '$core/trial/design/presence';
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
const act = <F extends Fields>(
	fields: F,
	work: (db: Db, id: number, typed: Typed<F>, body: FormData) => void | Promise<void>
) =>
	formAction(fields, async (typed, { locals, params }: RequestEvent, body) => {
		await work(locals.db, idFrom(params.id, 'trial'), typed, body);
		return { done: true };
	});

const ChangeFields = v.object({ change: Text });
const StepFields = v.object({ words: Text, takesBack: Tick, checks: Text });
const DecideFields = v.object({ stage: Text, decision: Text, note: Text });
const LoadFields = v.object({ load: Text, reason: Text });
const ArmFields = v.object({ arm: Text });

export const actions = {
	start: act(ChangeFields, async (db, id, { change }, body) => {
		const words = change.trim().slice(0, 2000);
		const settings = await settingsFileOf(body);
		if (words || settings)
			noteChange(db, id, {
				words: words || `Settings saved: ${settings?.name}`,
				fileName: settings?.name ?? null,
				file: settings?.text ?? null
			});
		startTrial(db, id);
	}),
	step: act(StepFields, async (db, id, { words, takesBack, checks }, body) => {
		const settings = await settingsFileOf(body);
		addStep(
			db,
			id,
			parsed(NewStep, {
				words,
				takesBack,
				fileName: settings?.name ?? null,
				file: settings?.text ?? null,
				checks: readAt('checks', () => parsePresence(checks))
			})
		);
	}),
	decide: act(DecideFields, (db, id, { stage, decision, note }) =>
		decideStep(db, id, Number(stage), parsed(Decision, { decision, note: note || null }))
	),
	end: act(BUTTON, (db, id) => endLog(db, id)),
	first: act(BUTTON, (db, id) => putFirst(db, id)),
	pause: act(BUTTON, (db, id) => pauseTrial(db, id)),
	stop: act(BUTTON, (db, id) => stopTrial(db, id)),
	rounds: act(v.object({ rounds: Figure }), (db, id, { rounds }) => addRounds(db, id, rounds ?? NaN)),
	exclude: act(LoadFields, (db, _, { load, reason }) => excludeLoad(db, idFrom(load, 'load'), reason)),
	restore: act(LoadFields, (db, _, { load }) => excludeLoad(db, idFrom(load, 'load'), null)),
	intend: act(v.object({ line: Text }), (db, id, { line }) => void intendDifference(db, id, line.slice(0, 40))),
	setup: act(ArmSetupFields, (db, id, { arm, setup }) => changeSetup(db, id, Number(arm), setupFrom(setup))),
	late: act(ArmFields, (db, id, { arm }) => void checkLateWork(db, id, Number(arm))),
	age: act(BUTTON, (db, id) => void repeatByAge(db, id)),
	repeat: act(BUTTON, (db, id) => redirect(303, `/trials/${repeatTrial(db, id)}`)),
	delete: act(BUTTON, (db, id) => {
		deleteTrial(db, id);
		redirect(303, '/trials');
	})
};
