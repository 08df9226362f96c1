import * as v from 'valibot';
import { redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { NewTrialInput } from '$core/trial/design/input';
import { parsed } from '$lib/server/base/parse';
import * as fields from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { labSheet } from '$lib/server/desk/labSheet';
import { createTrial, startTrial } from '$lib/server/rooms/trials/commands';

/** Rounds of a trial that measures the noise floor (house). */
const ROUNDS = 12;

const NoiseFields = v.object({ url: fields.Text, conditions: fields.Texts });

export const load = async ({ locals }) => {
	const { address, ...sheet } = labSheet(locals.db);
	const form = await formOf(NoiseFields, { url: address, conditions: ['phone', 'desktop'] });
	return { where: 'Workshop › The lab', ...sheet, form };
};

export const actions = {
	/** One page against itself, under the chosen conditions. */
	noise: formAction(NoiseFields, ({ url, conditions }, { locals }: RequestEvent) => {
		const input = {
			question: 'How far apart are two runs of the same page on this machine?',
			kind: 'same-page',
			arms: [
				{ name: 'First run', url, baseline: true },
				{ name: 'Second run', url, baseline: false }
			],
			conditions,
			rounds: ROUNDS,
			warmups: 1
		};
		const id = createTrial(
			locals.db,
			parsed(NewTrialInput, input, (path) => (path === 'conditions' ? path : 'url'))
		);
		startTrial(locals.db, id);
		redirect(303, `/trials/${id}`);
	})
};
